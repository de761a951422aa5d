import type { EarlierBelief } from '@voltrek/core/belief';
import type { SignInState } from '@voltrek/contracts';
import { foldJob, planRecord, readingsOf, rulesOfJob, situationOf } from '@voltrek/core/job';
import type { Work } from '../app/shared/job/job-selectors';
import { casualtyBatteries } from '@voltrek/core/belief';
import { type RankedOption, rankOptions } from '@voltrek/core/plan';
import { DEFAULT_RULES } from '@voltrek/core/rules';
import type { EventData, EventType, JobEvent } from '@voltrek/core/job';
import type { Machine, MachinePoint } from '@voltrek/core/machine';
import type { PlanCase } from '@voltrek/core/plan';
import type { KitItem } from '@voltrek/core/sources';

const at = (
  id: string,
  kind: MachinePoint['kind'],
  xMm: number,
  yMm: number,
  battery?: number,
): MachinePoint => ({
  id,
  kind,
  label: id,
  xMm,
  yMm,
  steps: ['Look.'],
  ...(battery !== undefined && { battery }),
});

/** A petrol car with its battery in front. */
export const CAR: Machine = {
  id: 'car',
  maker: 'Test',
  model: 'Car',
  machineClass: 'car',
  gearbox: 'manual',
  systemVolts: 12,
  lengthMm: 4000,
  widthMm: 1700,
  outline: [
    { xMm: 0, yMm: 0 },
    { xMm: 1700, yMm: 0 },
    { xMm: 1700, yMm: 4000 },
    { xMm: 0, yMm: 4000 },
  ],
  glass: [],
  wheels: [],
  batteries: [
    {
      rating: { chemistry: 'flooded', capacityAh: 60, ccaAmps: 540, ccaStandard: 'EN' },
      rect: { xMm: 100, yMm: 400, widthMm: 240, lengthMm: 180 },
      place: 'front bay',
      closedIn: false,
      ventHose: false,
      layout: 'positive-left',
      topMm: 800,
    },
  ],
  points: [
    { ...at('plus', 'battery-positive', 150, 490, 0), label: 'Battery +' },
    { ...at('minus', 'battery-negative', 290, 490, 0), label: 'Battery -' },
    at('ground', 'ground-point', 1400, 500),
  ],
  engine: { fuel: 'petrol', displacementL: 1.6, cylinders: 4, systemVolts: 12 },
  smartAlternator: false,
  resets: ['Clock'],
  cautions: [],
  side: null,
  zones: [],
  never: [],
};

export const VAN: Machine = { ...CAR, id: 'van', model: 'Van', lengthMm: 5000 };

const leads = { sectionMm2: 25, lengthM: 3.5, conductor: 'copper', contact: 'clean' } as const;

export const KIT: readonly KitItem[] = [
  {
    kind: 'donor',
    id: 'donor',
    name: 'Service van',
    modelId: 'van',
    systemVolts: 12,
    battery: { chemistry: 'agm', capacityAh: 95, ccaAmps: 850, ccaStandard: 'EN' },
    soc: 0.95,
    alternatorSpareAmps: 60,
  },
  { kind: 'lead-set', id: 'heavy', name: 'Heavy set', leads },
  {
    kind: 'lithium-pack',
    id: 'lithium',
    name: 'Lithium pack',
    peakAmps: 800,
    peakSeconds: 3,
    charge: 0.8,
    leads,
  },
];

export const JOB_ID = '0c9d8e7f-1a2b-4c3d-8e4f-5a6b7c8d9e0f';
let made = 0;

/** An event of the test job, a minute after the one before. */
export function event<T extends EventType>(type: T, data: EventData[T]): JobEvent {
  made += 1;
  const id = `00000000-0000-4000-8000-${String(made).padStart(12, '0')}`;
  const moment = new Date(Date.parse('2027-01-15T02:00:00.000Z') + made * 60_000).toISOString();
  return { id, jobId: JOB_ID, at: moment, by: 'crew-1', type, data } as JobEvent;
}

export const opened = (): JobEvent =>
  event('job.opened', {
    callId: 'call-1',
    callNumber: 1,
    title: 'Test car',
    placeName: 'Test yard',
    modelId: 'car',
    ambientC: -4,
  });

/** The server's answer with a job. */
export const detailOf = (events: readonly JobEvent[]) => ({
  call: {
    id: 'call-1',
    number: 1,
    receivedAt: '2027-01-15T02:00:00.000Z',
    title: 'Test car',
    placeName: 'Test yard',
    said: 'It clicks.',
    modelId: 'car',
    vehicleId: 'vehicle-1',
    callerId: null,
    ambientC: -4,
    urgent: false,
    state: 'taken' as const,
    vanId: 'van-1',
    technicianId: 'crew-1',
    promisedAt: null,
  },
  vehicle: {
    id: 'vehicle-1',
    plate: 'QT 0001',
    fleetNumber: null,
    serialNumber: null,
    modelId: 'car',
    ownerId: null,
    notes: '',
    revision: 1,
  },
  batteries: [],
  events,
  machine: CAR,
  confidence: 'maker' as const,
  kit: KIT,
  donorMachine: VAN,
  rules: DEFAULT_RULES,
  earlierFlatCalls: 0,
  earlier: null as EarlierBelief | null,
});

/** The input of the parts of a job page: the job of these events, its record, and its situation. */
export function workOf(events: readonly JobEvent[], change: Partial<ReturnType<typeof detailOf>> = {}): Work {
  const detail = { ...detailOf(events), ...change };
  const job = foldJob(events)!;
  const { machine, kit, donorMachine: donor, earlierFlatCalls, earlier } = detail;
  const rules = rulesOfJob(job, detail.rules);
  const situation = situationOf(readingsOf(job), { machine, donor, kit, earlierFlatCalls, earlier }, rules);
  return { ...detail, rules, job, machine: situation.machine, situation };
}

/** Sign-in on, with nobody in on this device. */
export const signInState = (more: Partial<SignInState>): SignInState => ({
  ...{ required: true, crewId: null, role: null, signedIn: [], names: [] },
  ...more,
});

/** The van's options for the car at -4 degC, its battery at 11.8 V: best first. */
export const rankedOptions = (): RankedOption[] =>
  rankOptions(CAR, KIT, casualtyBatteries(CAR, [11.8], -4), -4, DEFAULT_RULES);

/** One of those options chosen, by its id. */
export const planned = (optionId: string): JobEvent =>
  event('plan.chosen', planRecord(rankedOptions().find((r) => r.option.id === optionId)!)!);

const PLUS = { kind: 'plus', battery: 0 } as const;
const BODY = { kind: 'body' } as const;
/** The car's flat battery with a running donor across it, to be computed in depth. */
export const PLAN_CASE: PlanCase = {
  rescue: {
    casualty: [{ openVolts: 11.8, ohms: 0.06 }],
    load: { kind: 'none' },
    source: { openVolts: 12.6, ohms: 0.006, alternator: { volts: 14.2, maxAmps: 60 } },
    sourceOn: true,
    leads,
    tempC: -4,
    clamps: { redCasualty: PLUS, redSource: PLUS, blackSource: BODY, blackCasualty: BODY },
  },
  beliefs: [{ rating: CAR.batteries[0]!.rating, soc: 0.05, socLow: 0, socHigh: 0.1 }],
  engine: CAR.engine!,
  waitMinutes: 0,
  chargeOnly: false,
};
