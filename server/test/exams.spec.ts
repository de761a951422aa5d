import { randomUUID } from 'node:crypto';
import type { Exam, NewExam } from '@voltrek/contracts';
import { EXAM_MINUTES, examCases, type PracticeAction } from '@voltrek/core/practice';
import { sharedServer } from './shared-server.js';

const NUMBER = 7;
/** A person takes a number once: each exam here has one of its own. */
let numbers = NUMBER;
const VERDICT: PracticeAction = { kind: 'verdict', verdict: 'charge-first', suspect: null };

/** An exam of which no case was ended, sent in as its device does. */
function exam(more: Partial<NewExam> = {}, minutes = 20): NewExam {
  const startedAt = new Date(Date.now() - 3_600_000);
  const number = more.number ?? numbers++;
  return {
    ...{ id: randomUUID(), by: 'crew-4', number },
    startedAt: startedAt.toISOString(),
    endedAt: new Date(startedAt.getTime() + minutes * 60_000).toISOString(),
    runs: examCases(number).map((code) => ({ code, actions: [] })),
    ...more,
  };
}

describe('exams', () => {
  const send = async (sent: NewExam) => (await sharedServer()).api.post('/api/exams').send(sent);

  it('are marked here by what was done, kept once however often they are sent, and listed', async () => {
    const empty = exam();
    const runs = empty.runs.map((run, i) => (i === 0 ? { ...run, actions: [VERDICT] } : run));
    const sent = { ...empty, runs };
    const first = await send(sent);
    expect(first.status).toBe(201);
    const kept = first.body as Exam;
    expect(kept.cases.map(({ code }) => code)).toEqual([...examCases(sent.number)]);
    // To say one thing and drive off passes nobody, and no fault is told before a lead has signed.
    expect(kept.cases[0]!.verdict).toBe('charge-first');
    expect(kept.cases[0]!.failings).toContain('stops-unlooked');
    expect(kept.cases.map(({ truth }) => truth)).toEqual([null, null, null, null, null]);
    expect(kept.passed).toBeFalse();
    const again = await send(sent);
    expect(again.status).toBe(200);
    expect(again.body).toEqual(kept);
    const changed = await send({ ...sent, runs: sent.runs.map((run) => ({ ...run, actions: [] })) });
    expect([changed.status, (changed.body as { code: string }).code]).toEqual([409, 'examChanged']);
    const second = await send({ ...sent, id: randomUUID() });
    expect([second.status, (second.body as { code: string }).code]).toEqual([409, 'examTaken']);
    const { api } = await sharedServer();
    const listed = (await api.get('/api/exams').expect(200)).body as Exam[];
    expect(listed.filter(({ id }) => id === sent.id)).toEqual([kept]);
    const file = await api.get(`/api/exams/${sent.id}`).expect(200);
    expect(file.body).toEqual(kept);
    expect(file.get('Content-Disposition')).toContain(`exam-${sent.number}-crew-4.json`);
    await api.get(`/api/exams/${randomUUID()}`).expect(404);
  });

  it('are not passed when they took longer than they may, whatever they were worth', async () => {
    expect(((await send(exam({}, EXAM_MINUTES))).body as Exam).isInTime).toBeTrue();
    const late = (await send(exam({}, EXAM_MINUTES + 3))).body as Exam;
    expect([late.isInTime, late.passed]).toEqual([false, false]);
    expect(((await send(exam({}, -5))).body as Exam).isInTime).toBeFalse();
  });

  it('are refused with a reason where they are of other cases, have hints, or cannot be replayed', async () => {
    const number = numbers++;
    const [first, ...rest] = exam({ number }).runs;
    const faults: [NewExam, RegExp][] = [
      [exam({ number: number + 1, runs: [first!, ...rest] }), /not the cases of that exam/],
      [
        exam({ number, runs: [{ ...first!, actions: [{ kind: 'hint', level: 'step' }] }, ...rest] }),
        /no hints/,
      ],
      [exam({ number, runs: [{ ...first!, actions: [{ kind: 'probe' } as never] }, ...rest] }), /./],
      [exam({ number, runs: [{ ...first!, actions: [{ kind: 'nonsense' } as never] }, ...rest] }), /./],
    ];
    for (const [sent, why] of faults) {
      const answer = await send(sent);
      expect(answer.status).withContext(String(why)).toBe(422);
      expect((answer.body as { detail: string }).detail).toMatch(why);
    }
    expect((await send(exam({ by: 'nobody' }))).status).toBe(404);
    expect((await send({ ...exam(), number: 0 })).status).toBe(422);
  });

  it('are signed by somebody else, once, and by name', async () => {
    const { id } = (await send(exam())).body as Exam;
    const { api } = await sharedServer();
    const sign = (by: string) => api.post(`/api/exams/${id}/signature`).send({ by });
    expect((await sign('crew-4')).status).toBe(409);
    const signed = (await sign('crew-1')).body as Exam;
    expect(signed.signedBy).toBe('crew-1');
    expect(signed.cases.every(({ truth }) => truth !== null))
      .withContext('told now')
      .toBeTrue();
    expect(((await sign('crew-2')).body as Exam).signedBy).toBe('crew-1');
    expect((await api.post(`/api/exams/${randomUUID()}/signature`).send({ by: 'crew-1' })).status).toBe(404);
    expect((await api.post('/api/exams/none/signature').send({ by: 'crew-1' })).status).toBe(404);
  });
});
