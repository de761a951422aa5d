import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { deleteDB, openDB } from 'idb';
import { detailOf, event, JOB_ID, opened } from '../../../testing/fixtures';
import { DeviceStore } from './device-store';

const newStore = (): DeviceStore => TestBed.runInInjectionContext(() => new DeviceStore());

describe('DeviceStore', () => {
  beforeEach(async () => {
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection()] });
    localStorage.clear();
    await deleteDB('voltrek');
  });

  const moment = '2027-01-15T02:40:00.000Z';
  const taps = () => [
    { ...event('finding.recorded', { check: 'case', found: 'fault' }), at: moment },
    { ...event('stop.raised', { stop: 'case-damaged' }), at: moment },
    { ...event('symptom.recorded', { symptom: 'silence' }), at: '2027-01-15T02:39:00.000Z' },
  ];

  it('gives events back in the order they happened, whatever the clock says', async () => {
    // Ids that sort the other way round, in one millisecond, and then a clock that was set back.
    const events = taps().map((e, i) => ({ ...e, id: `${9 - i}${e.id.slice(1)}` }));
    const box = newStore();
    await Promise.all(events.map((e) => box.keep(e)));
    expect(await newStore().waitingFor(JOB_ID)).toEqual(events);
  });

  it('writes a tap down at once, and troubles the database after the frame that shows it', async () => {
    const [event] = taps();
    const box = newStore();
    await box.waitingFor(JOB_ID);
    const changes = spyOn(IDBDatabase.prototype, 'transaction').and.callThrough();
    const kept = box.keep(event!);
    let changesInFrame = -1;
    requestAnimationFrame(() => (changesInFrame = changes.calls.count()));
    expect(localStorage.length).toBe(1);
    await kept;
    expect(changesInFrame).toBe(0);
    expect(localStorage.length).toBe(0);
  });

  it('keeps a tap on a page that has no frames', async () => {
    spyOn(globalThis, 'requestAnimationFrame').and.returnValue(0);
    const [event] = taps();
    const box = newStore();
    await box.keep(event!);
    expect(await box.waitingFor(JOB_ID)).toEqual([event!]);
  });

  it('drops what the server has, and no more', async () => {
    const [first, second, third] = taps();
    const box = newStore();
    for (const e of [first!, second!, third!]) await box.keep(e);
    await box.drop(second!.id);
    await box.drop(second!.id);
    await box.drop('never-kept');
    expect((await box.waitingFor(JOB_ID)).map((e) => e.id)).toEqual([first!.id, third!.id]);
  });

  it('keeps jobs apart', async () => {
    const other = { ...opened(), jobId: 'another' };
    const box = newStore();
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
    expect(await newStore().waitingFor(JOB_ID)).toEqual([first!, second!]);
  });

  it('moves an event from what waits into what is known, in its place and once', async () => {
    const open = opened();
    const { events, ...detail } = detailOf([open]);
    const [first, second] = taps();
    const box = newStore();
    await box.hold({ jobId: JOB_ID, detail, logged: events.map((e, i) => ({ event: e, revision: i + 1 })) });
    for (const e of [first!, second!]) await box.keep(e);
    await box.acknowledge({ event: second!, revision: 3 });
    await box.acknowledge({ event: first!, revision: 2 });
    await box.acknowledge({ event: first!, revision: 2 });
    const held = await newStore().held(JOB_ID);
    expect(held!.logged.map((l) => l.event.id)).toEqual([open.id, first!.id, second!.id]);
    expect(await box.waitingFor(JOB_ID)).toEqual([]);
    // An older answer of the server takes nothing away.
    await box.hold({ jobId: JOB_ID, detail, logged: [{ event: open, revision: 1 }] });
    expect((await box.held(JOB_ID))!.logged.length).toBe(3);
  });

  it('keeps refusals until they are read, and what is parked until it is sent again', async () => {
    const [first, second] = taps();
    const box = newStore();
    for (const e of [first!, second!]) await box.keep(e);
    await box.refuse({ event: first!, why: 'No plan.', at: moment });
    await box.park({ eventId: second!.id, why: 'It choked.' });
    const left = await newStore().allWaiting();
    expect(left.waiting).toEqual([second!]);
    expect(left.refused.map((r) => [r.event.id, r.why])).toEqual([[first!.id, 'No plan.']]);
    expect(left.parked.map((p) => p.why)).toEqual(['It choked.']);
    await box.read(first!.id);
    await box.unpark(second!.id);
    expect(await box.allWaiting()).toEqual(jasmine.objectContaining({ refused: [], parked: [] }));
  });

  it('keeps what a page wrote down before it went, after what was kept before, once', async () => {
    const [first, second, third] = taps();
    await newStore().keep(first!);
    // A page that goes before the database has a tap leaves only what it wrote down.
    localStorage.setItem('voltrek.taps.gone', JSON.stringify([second, third]));
    localStorage.setItem('voltrek.taps.torn', '[{"id":');
    expect(await newStore().waitingFor(JOB_ID)).toEqual([first!, second!, third!]);
    expect(await newStore().waitingFor(JOB_ID)).toEqual([first!, second!, third!]);
    expect(localStorage.length).toBe(0);
  });

  it('writes a tap down at once, until it is kept', async () => {
    const box = newStore();
    const written = (): number =>
      Object.keys(localStorage).filter((k) => k.startsWith('voltrek.taps.')).length;
    const keeping = box.keep(taps()[0]!);
    expect(written()).toBe(1);
    await keeping;
    expect(written()).toBe(0);
  });

  it('lets go of jobs that the server has whole, and of no other', async () => {
    const box = newStore();
    const [tap] = taps();
    const jobIds = ['settled', 'waits', 'unread', 'parked'];
    for (const jobId of jobIds) {
      const { events, ...detail } = detailOf([{ ...opened(), jobId }]);
      await box.hold({ jobId, detail, logged: events.map((e, i) => ({ event: e, revision: i + 1 })) });
    }
    const of = (jobId: string) => ({ ...tap!, id: `tap-${jobId}`, jobId });
    for (const jobId of ['waits', 'unread', 'parked']) await box.keep(of(jobId));
    await box.refuse({ event: of('unread'), why: 'No plan.', at: moment });
    await box.park({ eventId: 'tap-parked', why: 'It choked.' });
    await box.forgetSettled();
    expect([...(await box.heldIds())].sort()).toEqual(['parked', 'unread', 'waits']);
    const left = await box.allWaiting();
    expect(left.waiting.map(({ jobId }) => jobId).sort()).toEqual(['parked', 'waits']);
    expect(left.refused.map(({ event: { jobId } }) => jobId)).toEqual(['unread']);
    expect(left.parked.length).toBe(1);
  });

  it('gives a picture back as it was, also one that an earlier version kept', async () => {
    const errand = { id: 'e1', at: moment, why: null, kind: 'photo', modelId: 'car', by: 'crew-1' } as const;
    const picture = new Blob(['12345'], { type: 'image/png' });
    const box = newStore();
    await box.keepErrand(errand, picture);
    const db = await openDB('voltrek');
    await db.add('errands', { errand: { ...errand, id: 'e2' }, photo: picture });
    db.close();
    for (const { photo } of await newStore().errands()) {
      expect(photo!.type).toBe('image/png');
      expect(await photo!.text()).toBe('12345');
    }
    expect((await newStore().errands()).map(({ errand: { id } }) => id)).toEqual(['e1', 'e2']);
  });

  it('waits for no database that never answers, and keeps what was tapped meanwhile once one does', async () => {
    const [tap] = taps();
    // A page from before a change of the database that does not let go of it.
    const older = await openDB('voltrek', 1, { upgrade: (db) => void db.createObjectStore('outbox') });
    const box = newStore();
    jasmine.clock().install();
    const over = jasmine.createSpy('over');
    void box.keep(tap!).then(over);
    for (let tick = 0; tick < 600; tick++) {
      jasmine.clock().tick(100);
      await Promise.resolve();
    }
    jasmine.clock().uninstall();
    expect(over).toHaveBeenCalled();
    expect(box.canKeep()).toBeFalse();
    older.close();
    expect(await newStore().waitingFor(JOB_ID)).toEqual([tap!]);
  });

  it('says when it cannot keep, and throws nothing at those who tap', async () => {
    const box = newStore();
    const real = indexedDB.open.bind(indexedDB);
    const denied = spyOn(indexedDB, 'open').and.throwError('denied');
    await box.keep(taps()[0]!);
    expect(box.canKeep()).toBeFalse();
    expect(await box.waitingFor(JOB_ID)).toEqual([]);
    const errand = { id: 'e1', at: moment, why: null, kind: 'photo', modelId: 'car', by: 'crew-1' } as const;
    expect(await box.keepErrand(errand, new Blob(['1']))).toBeFalse();
    denied.and.callFake(real);
    await box.keep(taps()[0]!);
    expect(box.canKeep()).toBeTrue();
    expect(await box.keepErrand(errand, new Blob(['1']))).toBeTrue();
    expect(await box.keepErrand(errand, new Blob(['1']))).toBeTrue();
    expect((await box.errands()).length).toBe(1);
  });
});
