import { randomUUID } from 'node:crypto';
import sharp from 'sharp';
import { openJob, sendPhoto, sharedServer, testPicture } from './shared-server.js';

describe('a photo of a job', () => {
  it('is kept once, small and without metadata, and changes no other', async () => {
    const { api } = await sharedServer();
    const [jobId, id] = [await openJob(), randomUUID()];
    expect((await sendPhoto(jobId, id)).status).toBe(201);
    // Sent again, whatever is in it then, the first one stays.
    expect((await sendPhoto(jobId, id, '#fff')).status).toBe(201);
    const kept = (await api.get(`/api/jobs/${jobId}/photos/${id}`).expect(200)).body as Buffer;
    const { format, exif, width } = await sharp(kept).metadata();
    expect([format, exif, width]).toEqual(['jpeg', undefined, 1600]);
    const { dominant } = await sharp(kept).stats();
    expect(dominant.r).toBeLessThan(128);
  });

  it('is of one job: another does not show it, and one that nobody knows takes none', async () => {
    const { api } = await sharedServer();
    const [jobId, other, id] = [await openJob(), await openJob(), randomUUID()];
    expect((await sendPhoto(jobId, id)).status).toBe(201);
    await api.get(`/api/jobs/${other}/photos/${id}`).expect(404);
    await api.get(`/api/jobs/${jobId}/photos/no-id`).expect(404);
    expect((await sendPhoto(randomUUID(), randomUUID())).status).toBe(404);
    expect((await sendPhoto(jobId, 'no-id')).status).toBe(422);
  });

  it('is refused where it is no picture, nobody of the crew sends it, or nothing was sent', async () => {
    const { api } = await sharedServer();
    const jobId = await openJob();
    const post = () => api.post(`/api/jobs/${jobId}/photos`);
    await post().field('by', 'crew-1').attach('photo', Buffer.from('no picture'), 'a.jpg').expect(415);
    await post()
      .field('by', 'nobody')
      .attach('photo', await testPicture(), 'a.jpg')
      .expect(404);
    await post().field('by', 'crew-1').expect(400);
  });
});
