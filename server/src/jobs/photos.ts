import type { JobEvent } from '@voltrek/core/job';
import { and, eq, inArray, or } from 'drizzle-orm';
import { photoFrom } from '../atlas/photo.js';
import { requireCrew } from '../crew/repository.js';
import type { Database, Db, Tx } from '../db/database.js';
import { calls, jobEvents, jobPhotos, jobs, vehicles } from '../db/schema.js';
import { notFound } from '../http/problem.js';

/**
 * Keeps a photo of a job, turned upright, made smaller and stripped of metadata. Its words are in the log of the job.
 *
 * @param id under which it is kept, once however often it is sent
 * @throws HttpProblem 404 for a job that is not here, 415 for a file that is no picture
 */
export async function keepJobPhoto(
  { write }: Database,
  { id, jobId, by }: Pick<typeof jobPhotos.$inferInsert, 'id' | 'jobId' | 'by'>,
  upload: Uint8Array,
): Promise<void> {
  const picture = await photoFrom(upload);
  await write(async (tx) => {
    await requireCrew(tx, by);
    const [job] = await tx.select({ id: jobs.id }).from(jobs).where(eq(jobs.id, jobId));
    if (!job) throw notFound('job', jobId);
    await tx
      .insert(jobPhotos)
      .values({ id, jobId, by, at: new Date(), ...picture })
      .onConflictDoNothing();
  });
}

/** Returns the picture; null where it never came, or was forgotten. */
export async function jobPhotoById(db: Db, jobId: string, id: string): Promise<Uint8Array | null> {
  const [row] = await db
    .select({ jpeg: jobPhotos.jpeg })
    .from(jobPhotos)
    .where(and(eq(jobPhotos.jobId, jobId), eq(jobPhotos.id, id)));
  return row?.jpeg ?? null;
}

/** Deletes the photos that show a person: of the jobs at somebody's vehicles, and of somebody's calls. */
export async function forgetPhotosOf(tx: Tx, personId: string): Promise<void> {
  const taken = await tx
    .select({ data: jobEvents.data })
    .from(jobEvents)
    .innerJoin(jobs, eq(jobs.id, jobEvents.jobId))
    .innerJoin(calls, eq(calls.id, jobs.callId))
    .innerJoin(vehicles, eq(vehicles.id, jobs.vehicleId))
    .where(
      and(
        eq(jobEvents.type, 'photo.added'),
        or(eq(calls.callerId, personId), eq(vehicles.ownerId, personId)),
      ),
    );
  const photos = taken.map(({ data }) => data as Extract<JobEvent, { type: 'photo.added' }>['data']);
  const shown = photos.filter(({ showsPerson }) => showsPerson).map(({ photoId }) => photoId);
  if (shown.length > 0) await tx.delete(jobPhotos).where(inArray(jobPhotos.id, shown));
}
