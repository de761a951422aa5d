import { ROUTES } from '../src/http/routes.js';
import { openJob, sharedServer } from './shared-server.js';

describe('a list of the API', () => {
  const lists = ROUTES.filter(({ isList }) => isList);

  it('is at every address that answers an array, and at no other', async () => {
    const { api } = await sharedServer();
    const plain = ROUTES.filter(({ method, path, type }) => method === 'GET' && !type && !path.includes(':'));
    for (const { path, isList } of plain) {
      const { body, status } = await api.get(path);
      if (status === 200)
        expect(Array.isArray(body))
          .withContext(path)
          .toBe(isList === true);
    }
  });

  it('comes by pages whose links lead through all of it, each row once', async () => {
    const { api } = await sharedServer();
    await openJob();
    const [call] = (await api.get('/api/board').expect(200)).body as { id: string }[];
    let longest = 0;
    for (const { path } of lists) {
      const address = path.replace(':callId', call!.id);
      const whole = (await api.get(address).expect(200)).body as unknown[];
      longest = Math.max(longest, whole.length);
      const paged: unknown[] = [];
      let next: string | null = `${address}?limit=3`;
      while (next !== null) {
        const { body, headers } = (await api.get(next).expect(200)) as {
          body: unknown[];
          headers: { link?: string };
        };
        expect(body.length).withContext(next).toBeLessThanOrEqual(3);
        paged.push(...body);
        next = /<(?<at>[^>]+)>; rel="next"/.exec(headers.link ?? '')?.groups?.at ?? null;
      }
      expect(paged).withContext(address).toEqual(whole);
    }
    expect(longest).toBeGreaterThan(6);
  });

  it('refuses a cursor of no row, and a limit that is no page', async () => {
    const { api } = await sharedServer();
    for (const { path } of lists)
      expect((await api.get(`${path.replace(':callId', 'none')}?after=nobody`).expect(400)).body)
        .withContext(path)
        .toEqual(jasmine.objectContaining({ code: 'brokenCursor' }));
    for (const limit of ['0', '501', '-1', 'all', '1.5'])
      await api.get(`/api/crew?limit=${limit}`).expect(422);
  });
});
