import type { BatteryRecord } from '@voltrek/contracts';
import { openJob, send, sharedServer } from './shared-server.js';

describe('batteries', () => {
  const recordOf = async (modelId: string): Promise<BatteryRecord> => {
    const { api } = await sharedServer();
    return (await api.get(`/api/batteries/${modelId}`).expect(200)).body as BatteryRecord;
  };

  it('fold a battery’s record out of every job of its machine, and begin another when it is changed', async () => {
    const before = await recordOf('skarnby-lumen-20');
    const jobId = await openJob('skarnby-lumen-20');
    const reading = { kind: 'rest', volts: 12.4, battery: 0, tempC: -4, source: 'typed' } as const;
    expect((await send(jobId, 'reading.taken', reading)).status).toBe(201);
    expect(
      (
        await send(jobId, 'finding.recorded', {
          check: 'conductance',
          found: 0.55,
          source: 'meter',
          figures: [300],
        })
      ).status,
    ).toBe(201);
    const read = await recordOf('skarnby-lumen-20');
    const now = read.batteries.at(-1)!;
    expect(read.batteries.length).toBe(before.batteries.length);
    expect(now.entries.slice(-2).map((e) => e.share ?? e.volts)).toEqual([12.4, 0.55]);
    expect(now.endedAt).toBeNull();

    const rating = { chemistry: 'agm', capacityAh: 80, ccaAmps: 900, ccaStandard: 'EN' } as const;
    expect((await send(jobId, 'fitting.confirmed', { battery: 0, step: 'all-off' })).status).toBe(201);
    expect((await send(jobId, 'battery.replaced', { battery: 0, rating })).status).toBe(201);
    const after = await recordOf('skarnby-lumen-20');
    expect(after.batteries.length).toBe(before.batteries.length + 1);
    expect(after.batteries.at(-2)!.endedAt).not.toBeNull();
    expect(after.batteries.at(-1)!.rating).toEqual(rating);
    expect(after.batteries.at(-1)!.entries.map((e) => e.kind)).toEqual(['replaced']);
    expect(new Set(after.batteries.map((b) => b.id)).size).toBe(after.batteries.length);
  });

  it('say what the machine needs in the cold, and know no machine they do not know', async () => {
    const { needShare, coldC } = await recordOf('brinmoor-pella');
    expect(coldC).toBeLessThanOrEqual(-10);
    expect(needShare).toBeGreaterThan(0.3);
    expect(needShare).toBeLessThan(1);
    const { api } = await sharedServer();
    await api.get('/api/batteries/nobody-knows').expect(404);
  });
});

describe('job sheet', () => {
  it('holds readings with what stands against them, evidence and cautions', async () => {
    const { api } = await sharedServer();
    const jobId = await openJob('brinmoor-pella');
    const volts = { kind: 'charging-idle', volts: 14.4, battery: 0, tempC: -4, source: 'typed' } as const;
    await send(jobId, 'reading.taken', volts);
    await send(jobId, 'symptom.recorded', { symptom: 'slow-crank' });
    const sheet = (await api.get(`/api/jobs/${jobId}/sheet`).expect(200)).body as {
      form: string;
      readings: { doubt: string }[];
      evidence: { check: string }[];
      cautions: string[];
    };
    expect(sheet.form).toBe('voltrek-job-sheet/1');
    expect(sheet.readings[0]!.doubt).toBe('charging-but-still');
    expect(sheet.evidence.map((e) => e.check)).toContain('symptom');
    expect(sheet.evidence.map((e) => e.check)).not.toContain('charging');
    expect(sheet.cautions.some((c) => c.startsWith('Never: '))).toBeTrue();
  });
});
