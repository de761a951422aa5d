import { type Exam, type NewExam, parseConfirmation, parseNewExam, UUID_PATTERN } from '@voltrek/contracts';
import { EXAM_MINUTES, type ExamMarks } from '@voltrek/core/practice';
import { MINUTE_MS } from '@voltrek/core/quantities';
import { and, desc, eq } from 'drizzle-orm';
import { isDeepStrictEqual } from 'node:util';
import { type Request, Router } from 'express';
import { requireCrew } from '../crew/repository.js';
import type { Database } from '../db/database.js';
import { exams } from '../db/schema.js';
import { HttpProblem, notFound } from '../http/problem.js';
import { holderOf } from '../sign-in/guard.js';
import { sendList } from '../http/list-page.js';
import { serve } from '../http/serve.js';
import { markInThread } from './marking.js';

const LISTED_MOST = 500;
/** The last tap of an exam is on its way for a moment. */
const GRACE_MS = MINUTE_MS;

/** Exams of the crew: marked here by replaying what was done, and signed by a lead. */
export function examRoutes({ db, write }: Database): Router {
  const router = Router();

  serve(router, 'GET /api/exams', async (request, response) => {
    const rows = await db.select().from(exams).orderBy(desc(exams.endedAt)).limit(LISTED_MOST);
    const seen = rows.filter((row) => maySee(request, row)).map(examOf);
    sendList(request, response, seen, ({ id }) => id);
  });

  serve(router, 'GET /api/exams/:examId', async (request, response) => {
    const { examId } = request.params;
    const [row] = UUID_PATTERN.test(examId) ? await db.select().from(exams).where(eq(exams.id, examId)) : [];
    if (!row || !maySee(request, row)) throw notFound('exam', examId);
    response.attachment(`exam-${row.number}-${row.crewId}.json`).json(examOf(row));
  });

  serve(router, 'POST /api/exams', async (request, response) => {
    const sent = parseNewExam(request.body);
    const { id, number, by, runs } = sent;
    const startedAt = new Date(sent.startedAt);
    const endedAt = new Date(sent.endedAt);
    const tookMs = endedAt.getTime() - startedAt.getTime();
    const isInTime = tookMs >= 0 && tookMs <= EXAM_MINUTES * MINUTE_MS + GRACE_MS;
    // Looked for before it is marked as well: to mark takes seconds, and a device sends again what it has no answer to.
    const before = await keptBefore(db, sent);
    const marks = before?.marks ?? (await markedOf(number, runs));
    const { row, isNew } = await write(async (tx) => {
      await requireCrew(tx, by);
      const known = await keptBefore(tx, sent);
      if (known) return { row: known, isNew: false };
      const values = { id, number, crewId: by, startedAt, endedAt, isInTime, runs, marks };
      const [kept] = await tx.insert(exams).values(values).returning();
      return { row: kept!, isNew: true };
    });
    response
      .status(isNew ? 201 : 200)
      .location(`/api/exams/${row.id}`)
      .json(examOf(row));
  });

  serve(router, 'POST /api/exams/:examId/signature', async (request, response) => {
    const { by } = parseConfirmation(request.body);
    const { examId } = request.params;
    const row = await write(async (tx) => {
      await requireCrew(tx, by);
      const [known] = UUID_PATTERN.test(examId)
        ? await tx.select().from(exams).where(eq(exams.id, examId))
        : [];
      if (!known) throw notFound('exam', examId);
      if (known.crewId === by) throw new HttpProblem(409, 'ownExam');
      if (known.signedBy !== null) return known;
      const signed = { signedBy: by, signedAt: new Date() };
      const [kept] = await tx.update(exams).set(signed).where(eq(exams.id, examId)).returning();
      return kept!;
    });
    response.json(examOf(row));
  });

  return router;
}

/** An exam is shown to its taker and to a lead. */
function maySee(request: Request, { crewId }: typeof exams.$inferSelect): boolean {
  const holder = holderOf(request);
  return holder === null || holder.role === 'crew-lead' || holder.crewId === crewId;
}

/**
 * Returns an exam that was sent in before; null for a new one.
 *
 * @throws HttpProblem for the same exam with other acts, and for a number that its taker has taken
 */
async function keptBefore(
  on: Pick<Database['db'], 'select'>,
  { id, number, by, runs }: Pick<NewExam, 'id' | 'number' | 'by' | 'runs'>,
): Promise<typeof exams.$inferSelect | null> {
  const [known] = await on.select().from(exams).where(eq(exams.id, id));
  if (known) {
    const isSame = known.crewId === by && known.number === number && isDeepStrictEqual(known.runs, runs);
    if (!isSame) throw new HttpProblem(409, 'examChanged');
    return known;
  }
  const [taken] = await on
    .select({ id: exams.id })
    .from(exams)
    .where(and(eq(exams.crewId, by), eq(exams.number, number)));
  if (taken) throw new HttpProblem(409, 'examTaken');
  return null;
}

async function markedOf(number: number, runs: NewExam['runs']): Promise<ExamMarks> {
  const answer = await markInThread(number, runs);
  if (answer.marks) return answer.marks;
  // An act that a world cannot take throws its own error: nothing of the exam was kept.
  throw new HttpProblem(422, 'runNotReplayed', answer.why ? { detail: answer.why } : {});
}

function examOf(row: typeof exams.$inferSelect): Exam {
  const { id, crewId, number, isInTime, signedBy, marks } = row;
  return {
    ...{ format: 'voltrek-exam', version: 1, id, crewId, number, isInTime, signedBy },
    startedAt: row.startedAt.toISOString(),
    endedAt: row.endedAt.toISOString(),
    signedAt: row.signedAt?.toISOString() ?? null,
    cases: marks.cases.map((one) => ({ ...one, truth: signedBy === null ? null : one.truth })),
    passed: marks.passed && isInTime,
  };
}
