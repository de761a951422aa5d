import type { JobDetail, RulesPage } from '@voltrek/contracts';
import { DEFAULT_RULES } from '@voltrek/core/rules';
import { openJob, sharedServer } from './shared-server.js';

describe('house rules', () => {
  const set = async (key: string, value: unknown, by = 'crew-1') => {
    const { api } = await sharedServer();
    return api.post('/api/rules').send({ key, value, by });
  };

  it('stand at the defaults until one is set, then every job sees it, and each setting is kept', async () => {
    const { api } = await sharedServer();
    const before = (await api.get('/api/rules').expect(200)).body as RulesPage;
    expect(before.rules).toEqual(DEFAULT_RULES);
    expect((await set('crankTriesMax', 3)).status).toBe(201);
    const page = (await set('crankTriesMax', 2)).body as RulesPage;
    expect(page.rules.crankTriesMax).toBe(2);
    expect(page.settings.map((s) => [s.key, s.value])).toEqual([
      ['crankTriesMax', 2],
      ['crankTriesMax', 3],
    ]);
    const jobId = await openJob();
    const detail = (await api.get(`/api/jobs/${jobId}`).expect(200)).body as JobDetail;
    expect(detail.rules.crankTriesMax).toBe(2);
    await set('crankTriesMax', DEFAULT_RULES.crankTriesMax);
  });

  it('refuse a figure out of limits, a school that is none, a fixed rule and an unknown person', async () => {
    const tooMany = await set('crankTriesMax', 99);
    expect(tooMany.status).toBe(422);
    expect(JSON.stringify(tooMany.body)).toContain('between 1 and 10');
    expect((await set('lastBlack', 'anywhere')).status).toBe(422);
    expect((await set('wakeMinVolts', 9)).status).toBe(422);
    expect((await set('firstRed', 'source', 'nobody')).status).toBe(404);
    const { api } = await sharedServer();
    const { rules } = (await api.get('/api/rules')).body as RulesPage;
    expect(rules).toEqual(DEFAULT_RULES);
  });
});
