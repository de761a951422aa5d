import { HttpErrorResponse } from '@angular/common/http';
import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import type { BoardCall, DevicePack, RulesPage, Van } from '@voltrek/contracts';
import type { JobEvent } from '@voltrek/core/job';
import { DEFAULT_RULES, settingsOf } from '@voltrek/core/rules';
import { provideState, provideStore, Store } from '@ngrx/store';
import { map, NEVER, type Observable, of, throwError, timer } from 'rxjs';
import { CAR, detailOf, KIT, VAN } from '../../../testing/fixtures';
import { Api } from '../data/api';
import { kitCopy } from '../data/kit';
import { rulesCopy } from '../data/rules';
import { DeviceStore, type HeldJob } from '../sync/device-store';
import { OpenJob } from './open-job';

const PAGE: RulesPage = { rules: { ...DEFAULT_RULES, recheckDays: 5 }, settings: [] };
const VANS: readonly Van[] = [{ id: 'van-1', name: 'Van 1', retired: false, kit: KIT, marks: [] }] as never;
const PACK = {
  models: [CAR, VAN].map((machine) => ({ machine, confidence: 'maker' })),
  vehicles: [],
} as unknown as DevicePack;
const CALL = {
  ...{
    ...detailOf([]).call,
    vanId: null,
    vehicle: { plate: 'QT 0001', fleetNumber: null, serialNumber: null },
    caller: null,
    job: null,
  },
} as unknown as BoardCall;

describe('opening a job', () => {
  let rules: Observable<RulesPage>;
  let append: Observable<null>;
  let sent: JobEvent[];
  let kept: JobEvent[];
  let held: HeldJob[];
  let pack: Observable<{ body: DevicePack; at: Date }>;

  beforeEach(() => {
    [rules, append, sent, kept, held] = [of(PAGE), of(null), [], [], []];
    pack = of({ body: PACK, at: new Date() });
    const api: Partial<Api> = {
      rules: () => rules,
      vans: () => NEVER,
      devicePack: () => pack,
      append: (event) => {
        sent.push(event);
        return append;
      },
    };
    const device: Partial<DeviceStore> = {
      hold: (job) => Promise.resolve(void held.push(job)),
      keep: (event) => Promise.resolve(void kept.push(event)),
    };
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        provideStore(),
        provideState(rulesCopy),
        provideState(kitCopy),
        { provide: Api, useValue: api },
        { provide: DeviceStore, useValue: device },
      ],
    });
    jasmine.clock().install();
  });
  afterEach(() => jasmine.clock().uninstall());

  /** Opens the job while the clock goes on for so long, ms; its id, or null where it is not open by then. */
  async function opensWithin(limitMs: number): Promise<string | null> {
    const opened: string[] = [];
    void TestBed.inject(OpenJob)
      .open(CALL, 'van-1', 'crew-1')
      .then((id) => opened.push(id));
    const settled = async (): Promise<void> => {
      for (let turn = 0; turn < 10; turn++) await Promise.resolve();
    };
    await settled();
    for (let gone = 0; gone < limitMs; gone += 100) {
      jasmine.clock().tick(100);
      await settled();
    }
    return opened[0] ?? null;
  }
  const rulesOf = (event: JobEvent | undefined) => event?.type === 'job.opened' && event.data.rules;

  it('is done on the server, under its rules', async () => {
    expect(await opensWithin(0)).toBe(sent[0]!.jobId);
    expect(rulesOf(sent[0])).toEqual(settingsOf(PAGE.rules));
    expect(held).toEqual([]);
  });

  it('waits for no line that answers nothing: it is here in eight seconds, under the rules heard last', async () => {
    const store = TestBed.inject(Store);
    store.dispatch(rulesCopy.changed(PAGE));
    store.dispatch(kitCopy.changed(VANS));
    rules = NEVER;
    append = NEVER as Observable<null>;
    const id = await opensWithin(10_000);
    expect(kept.map((event) => event.jobId)).toEqual([id!]);
    expect(rulesOf(kept[0])).toEqual(settingsOf(PAGE.rules));
    expect(held[0]!.detail.kit).toBe(KIT);
  });

  it('waits for a slow server on a new device, which holds neither rules nor machines', async () => {
    rules = timer(20_000).pipe(map(() => PAGE));
    append = timer(20_000).pipe(map(() => null));
    pack = NEVER;
    expect(await opensWithin(45_000)).toBe(sent[0]!.jobId);
    expect(kept).toEqual([]);
  });

  it('says that no server answers where this device does not hold the machine', async () => {
    TestBed.inject(Store).dispatch(kitCopy.changed(VANS));
    const away = new HttpErrorResponse({ status: 0 });
    append = throwError(() => away);
    pack = of({ body: { ...PACK, models: [] }, at: new Date() });
    const opened = TestBed.inject(OpenJob).open(CALL, 'van-1', 'crew-1');
    const refused = expectAsync(opened).toBeRejectedWith(away);
    for (let turn = 0; turn < 10; turn++) await Promise.resolve();
    jasmine.clock().tick(2_000);
    await refused;
  });

  it('asks the server for the rules first, since another may have set them since', async () => {
    TestBed.inject(Store).dispatch(rulesCopy.changed({ rules: DEFAULT_RULES, settings: [] }));
    await opensWithin(0);
    expect(rulesOf(sent[0])).toEqual(settingsOf(PAGE.rules));
  });

  it('says what the server has against it', async () => {
    rules = throwError(() => new HttpErrorResponse({ status: 400 }));
    await expectAsync(TestBed.inject(OpenJob).open(CALL, 'van-1', 'crew-1')).toBeRejected();
  });
});
