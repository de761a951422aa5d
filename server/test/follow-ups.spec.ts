import type { DueFollowUp } from '@voltrek/contracts';
import { openJob, send, sharedServer } from './shared-server.js';

describe('follow-ups', () => {
  it('come from the verdicts of closed jobs, by their day, and as a calendar', async () => {
    const { api } = await sharedServer();
    const jobId = await openJob();
    const verdict = (days: number) => ({
      verdict: 'charge-first' as const,
      suspect: null,
      certainty: 'sure' as const,
      followUps: [
        { kind: 'charge' as const, days: 0 },
        { kind: 'recheck' as const, days },
      ],
    });
    const mine = async (): Promise<DueFollowUp[]> =>
      ((await api.get('/api/follow-ups').expect(200)).body as DueFollowUp[]).filter((f) => f.jobId === jobId);
    expect((await send(jobId, 'verdict.given', verdict(9))).status).toBe(201);
    // Still open: nothing is promised yet. Given again, the newer verdict stands.
    expect(await mine()).toEqual([]);
    expect((await send(jobId, 'verdict.given', verdict(2))).status).toBe(201);
    expect((await send(jobId, 'job.closed', { note: '' })).status).toBe(201);
    const day = (ahead: number): string =>
      new Date(Date.now() + ahead * 86_400_000).toISOString().slice(0, 10);
    expect((await mine()).map((f) => [f.kind, f.dueOn])).toEqual([
      ['charge', day(0)],
      ['recheck', day(2)],
    ]);
    expect((await send(jobId, 'follow-up.done', { kind: 'workshop' })).status).toBe(409);
    expect((await send(jobId, 'follow-up.done', { kind: 'charge' })).status).toBe(201);
    expect((await send(jobId, 'follow-up.done', { kind: 'charge' })).status).toBe(409);
    expect((await send(jobId, 'symptom.recorded', { symptom: 'silence' })).status).toBe(409);
    expect((await mine()).map((f) => f.kind)).toEqual(['recheck']);
    const all = ((await api.get('/api/follow-ups')).body as DueFollowUp[]).map((f) => f.dueOn);
    expect(all).toEqual([...all].sort());

    const { text, headers } = await api.get('/api/follow-ups/calendar.ics').expect(200);
    expect(headers['content-type']).toContain('text/calendar');
    const events = text.replace(/\r\n /g, '').split('BEGIN:VEVENT').slice(1);
    expect(events.length).toBe(all.length);
    const own = events.find((e) => e.includes(`${jobId}-recheck`))!;
    expect(own).toContain(`DTSTART;VALUE=DATE:${day(2).replaceAll('-', '')}`);
    expect(own).toContain('SUMMARY:Recheck after 24 h rest: Test');
    expect(text.trimEnd().endsWith('END:VCALENDAR')).toBeTrue();

    const german = 'SUMMARY:Nachprüfung nach 24 h Ruhe: Test';
    const unfolded = async (address: string, accepts: string): Promise<string> =>
      (await api.get(address).set('Accept-Language', accepts).expect(200)).text.replace(/\r\n /g, '');
    const file = '/api/follow-ups/calendar.ics';
    expect(await unfolded(file, 'de-AT, en;q=0.5')).toContain(german);
    expect(await unfolded(`${file}?language=de`, 'en')).toContain(german);
    expect(await unfolded(`${file}?language=xx`, 'fr')).toContain('SUMMARY:Recheck after 24 h rest');
  });
});
