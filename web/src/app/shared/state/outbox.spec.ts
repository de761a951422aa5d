import { deleteDB, openDB } from 'idb';
import { event, JOB_ID, opened } from '../../../testing/fixtures';
import { Outbox } from './outbox';

describe('Outbox', () => {
  beforeEach(() => deleteDB('voltrek'));

  const moment = '2027-01-15T02:40:00.000Z';
  const taps = () => [
    { ...event('finding.recorded', { check: 'case', found: 'fault' }), at: moment },
    { ...event('stop.raised', { stop: 'case-damaged' }), at: moment },
    { ...event('symptom.recorded', { symptom: 'silence' }), at: '2027-01-15T02:39:00.000Z' },
  ];

  it('gives events back in the order they happened, whatever the clock says', async () => {
    // Ids that sort the other way round, in one millisecond, and then a clock that was set back.
    const events = taps().map((e, i) => ({ ...e, id: `${9 - i}${e.id.slice(1)}` }));
    const box = new Outbox();
    await Promise.all(events.map((e) => box.keep(e)));
    expect(await new Outbox().waitingFor(JOB_ID)).toEqual(events);
  });

  it('drops what the server has, and no more', async () => {
    const [first, second, third] = taps();
    const box = new Outbox();
    for (const e of [first!, second!, third!]) await box.keep(e);
    await box.drop(second!.id);
    await box.drop(second!.id);
    await box.drop('never-kept');
    expect((await box.waitingFor(JOB_ID)).map((e) => e.id)).toEqual([first!.id, third!.id]);
  });

  it('keeps jobs apart', async () => {
    const other = { ...opened(), jobId: 'another' };
    const box = new Outbox();
    await box.keep(other);
    expect(await box.waitingFor(JOB_ID)).toEqual([]);
    expect(await box.waitingFor('another')).toEqual([other]);
  });

  it('carries over what waited on the device from before', async () => {
    const old = await openDB('voltrek', 1, {
      upgrade: (db) => {
        db.createObjectStore('outbox');
      },
    });
    const [first, second] = taps();
    await old.put('outbox', { order: 2, event: second }, second!.id);
    await old.put('outbox', { order: 1, event: first }, first!.id);
    old.close();
    expect(await new Outbox().waitingFor(JOB_ID)).toEqual([first!, second!]);
  });
});
