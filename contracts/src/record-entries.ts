import { BATTERY_RANGES } from '@voltrek/core/battery';
import { LEAD_RANGES } from '@voltrek/core/leads';
import { type Range, TYPED_RANGES } from '@voltrek/core/quantities';
import { INSTRUMENT_TOOLS, type KitItem } from '@voltrek/core/sources';
import * as yup from 'yup';
import { faultAt, faultError } from './fault.js';
import { cellShape, figure, leads, rating, record, share } from './calc/parts.js';
import {
  BATTERY_MOVE_KINDS,
  CALL_CHANGE_KINDS,
  type KitEntry,
  type NewBattery,
  type NewBatteryMove,
  type NewCallChange,
  type PersonEntry,
  type VehicleEntry,
} from './record.js';
import {
  id,
  idText,
  instantText,
  maybeId,
  parsed,
  placeText,
  shortText,
  uuid,
  type WholeCheck,
} from './text.js';
import { CREW_ROLES, type CrewMember, type NewCall, type Van } from './wire.js';

const maybeText = (max: number) => yup.string().trim().min(1).max(max).nullable().defined();

const person = () =>
  record({
    name: shortText(80),
    phone: yup.string().trim().max(40).defined(),
    noLetters: yup.boolean(),
  }) as yup.ObjectSchema<PersonEntry>;

export const VEHICLE = record({
  plate: maybeText(16),
  fleetNumber: maybeText(40),
  serialNumber: maybeText(40),
  modelId: idText(),
  owner: person().nullable().defined(),
  notes: yup.string().max(400).defined(),
});

/** A vehicle as typed. @throws yup.ValidationError */
export const parseVehicle = (input: unknown): VehicleEntry =>
  parsed(VEHICLE.required(), input) as VehicleEntry;

/** A vehicle as it was changed, the revision that was seen, and who changed it. */
export interface VehicleChange {
  readonly vehicle: VehicleEntry;
  readonly basedOn: number;
  readonly by: string;
}

export const VEHICLE_CHANGE = record({
  vehicle: VEHICLE.required(),
  basedOn: yup.number().integer().min(1).required(),
  by: idText(),
}).required();

/** A changed vehicle. @throws yup.ValidationError */
export const parseVehicleChange = (input: unknown): VehicleChange =>
  parsed(VEHICLE_CHANGE, input) as VehicleChange;

const { min, max } = TYPED_RANGES.ambientC;
export const NEW_CALL = record({
  id: idText(),
  title: shortText(120),
  placeName: placeText(),
  said: yup.string().max(400).defined(),
  modelId: id(),
  vehicleId: id(),
  plate: yup.string().trim().min(1).max(16),
  newVehicleId: uuid(),
  caller: person().default(undefined),
  vanId: id(),
  technicianId: id(),
  promisedAt: instantText(),
  ambientC: yup.number().required().min(min).max(max),
  urgent: yup.boolean().required(),
}).required();

/** A reported call from untrusted input. @throws yup.ValidationError with a path and a reason for each fault */
export const parseNewCall = (input: unknown): NewCall =>
  parsed(NEW_CALL, input, ({ modelId, vehicleId, plate }) =>
    (modelId ?? vehicleId ?? plate) ? null : faultAt('modelId', 'vehiclePlateOrModel'),
  ) as NewCall;

export const CALL_CHANGE = record({
  kind: yup
    .string()
    .oneOf(CALL_CHANGE_KINDS.filter((k) => k !== 'reported'))
    .required(),
  by: idText(),
  vanId: maybeId(),
  technicianId: maybeId(),
  reason: yup.string().trim().max(200).defined(),
  promisedAt: instantText(),
}).required();
const callChangeFault: WholeCheck<yup.InferType<typeof CALL_CHANGE>> = ({ kind, vanId, reason }) => {
  if (kind === 'taken' && !vanId) return faultAt('vanId', 'van');
  const needsWhy = kind === 'passed-on' || kind === 'called-off' || kind === 'given-back';
  return needsWhy && reason.length < 3 ? faultAt('reason', 'why') : null;
};

/** A change of a call. @throws yup.ValidationError */
export const parseCallChange = (input: unknown): NewCallChange =>
  parsed(CALL_CHANGE, input, callChangeFault) as NewCallChange;

export const NEW_BATTERY = record({
  rating: rating(),
  dateMark: maybeText(20),
  vanId: maybeId(),
  by: idText(),
}).required();

/** A battery entered by hand. @throws yup.ValidationError */
export const parseNewBattery = (input: unknown): NewBattery => parsed(NEW_BATTERY, input) as NewBattery;

export const BATTERY_MOVE = record({
  kind: yup
    .string()
    .oneOf(BATTERY_MOVE_KINDS.filter((k) => k !== 'met' && k !== 'gone'))
    .required(),
  by: idText(),
  vehicleId: maybeId(),
  place: yup.number().integer().min(0).max(3).nullable().defined(),
  vanId: maybeId(),
  note: yup.string().max(200).defined(),
}).required();
const moveFault: WholeCheck<yup.InferType<typeof BATTERY_MOVE>> = ({ kind, vehicleId, place, vanId }) => {
  if (kind === 'fitted' && (vehicleId === null || place === null))
    return faultAt('vehicleId', 'vehicleAndPlace');
  return kind === 'to-van' && vanId === null ? faultAt('vanId', 'van') : null;
};

/** Something done with a battery. @throws yup.ValidationError */
export const parseBatteryMove = (input: unknown): NewBatteryMove =>
  parsed(BATTERY_MOVE, input, moveFault) as NewBatteryMove;

export const CREW_ENTRY = record({
  name: shortText(40),
  role: yup.string().oneOf(CREW_ROLES).required(),
  retired: yup.boolean().required(),
}).required();

/** Somebody of the crew as typed. @throws yup.ValidationError */
export const parseCrewEntry = (input: unknown): Omit<CrewMember, 'id'> =>
  parsed(CREW_ENTRY, input) as Omit<CrewMember, 'id'>;

export const VAN_ENTRY = record({ name: shortText(40), retired: yup.boolean().required() }).required();

/** A van as typed. @throws yup.ValidationError */
export const parseVanEntry = (input: unknown): Pick<Van, 'name' | 'retired'> =>
  parsed(VAN_ENTRY, input) as Pick<Van, 'name' | 'retired'>;

/** The range of a figure of kit, by its field. */
export const KIT_RANGES = {
  alternatorSpareAmps: { min: 5, max: 400, unit: 'A' },
  peakAmps: { min: 50, max: 5000, unit: 'A' },
  peakSeconds: { min: 0.5, max: 60, unit: 's' },
  capacityAh: { min: 0.5, max: 300, unit: 'Ah' },
  volts: { min: 0, max: 60, unit: 'V' },
  chargerAmps: { min: 0.5, max: 200, unit: 'A' },
  chargerVolts: { min: 6, max: 32, unit: 'V' },
  startAmps: { min: 10, max: 1500, unit: 'A' },
  converterAmps: { min: 0.5, max: 50, unit: 'A' },
  cRate: { min: 1, max: 200, unit: 'C' },
  latchVolts: { min: 3, max: 16, unit: 'V' },
} as const satisfies Record<string, Range>;

const named = { name: shortText(60) };
/** Of what carries a charge: when it was made, and when its charge was last known. */
const kept = {
  madeIn: yup.number().integer().min(1990).max(2100).optional(),
  chargedAt: instantText().optional(),
};
const volts = () =>
  yup
    .number()
    .oneOf([12, 24] as const)
    .required();

/** The measurements of a piece, use by use. */
const uses = () =>
  yup
    .array()
    .of(
      record({
        jobId: yup.string().uuid().required(),
        at: instantText().required(),
        factor: figure({ min: 0, max: 1000, unit: '' }),
        spread: figure({ min: 0, max: 1000, unit: '' }),
      }).required(),
    )
    .max(1000)
    .notRequired()
    .default(undefined);

/** The fields of each kind of kit, with their limits: one that is missing does not compile. */
const KIT: { readonly [K in KitItem['kind']]: KitFields<K> } = {
  donor: {
    ...named,
    modelId: idText(),
    systemVolts: volts(),
    battery: rating(),
    soc: share(),
    alternatorSpareAmps: figure(KIT_RANGES.alternatorSpareAmps),
  },
  'lead-set': {
    ...named,
    leads: leads.required(),
    uses: uses(),
  },
  'lithium-pack': {
    ...named,
    ...kept,
    uses: uses(),
    peakAmps: figure(KIT_RANGES.peakAmps),
    peakSeconds: figure(KIT_RANGES.peakSeconds),
    charge: share(),
    capacityAh: figure(KIT_RANGES.capacityAh).notRequired().default(undefined),
    leads: leads.required(),
  },
  'lead-pack': {
    ...named,
    ...kept,
    uses: uses(),
    outputs: yup.array().of(volts()).min(1).max(2).required(),
    battery: rating(),
    soc: share(),
    leads: leads.required(),
  },
  'capacitor-booster': {
    ...named,
    ...kept,
    ...cellShape(),
    volts: figure(KIT_RANGES.volts).when(['cells', 'cellVolts'], ([cells, cellVolts]: unknown[], schema) =>
      typeof cells === 'number' && typeof cellVolts === 'number'
        ? schema.max(
            cells * cellVolts,
            `volts must not be above ${cells * cellVolts} V: that is all its cells stand`,
          )
        : schema,
    ),
    converterAmps: figure(KIT_RANGES.converterAmps).nullable().defined(),
    leads: leads.required(),
  },
  'spare-batteries': {
    ...named,
    ...kept,
    count: yup
      .number()
      .oneOf([1, 2] as const)
      .required(),
    battery: rating(),
    soc: share(),
  },
  'mains-charger': {
    ...named,
    amps: figure(KIT_RANGES.chargerAmps),
    volts: figure(KIT_RANGES.chargerVolts),
    startAmps: figure(KIT_RANGES.startAmps).nullable().defined(),
    leads: leads.required(),
  },
  'hobby-lithium': {
    ...named,
    ...kept,
    capacityAh: figure(KIT_RANGES.capacityAh),
    cRate: figure(KIT_RANGES.cRate),
    charge: share(),
    leads: leads.required(),
  },
  'latch-source': { ...named, volts: figure(KIT_RANGES.latchVolts) },
  instrument: {
    ...named,
    tool: yup.string().oneOf(INSTRUMENT_TOOLS).required(),
  },
};
type KitFields<K extends KitItem['kind']> = Readonly<
  Required<Record<Exclude<keyof Extract<KitItem, { kind: K }>, 'kind' | 'id'>, yup.ISchema<unknown>>>
>;

export const KIT_KINDS = Object.keys(KIT) as readonly KitItem['kind'][];

/** The fields of a kind of kit, as a schema takes them. */
export const kitShape = (kind: KitItem['kind']): yup.ObjectShape => KIT[kind] as yup.ObjectShape;

/** A piece of kit of one kind as typed. */
export const kitEntrySchema = (kind: KitItem['kind']) =>
  record({ kind: yup.string().oneOf([kind]).required(), ...kitShape(kind) }).required();

/**
 * A piece of kit as typed, by the fields of its own kind. A capacitor booster stands at no more than its cells stand together.
 *
 * @throws yup.ValidationError with a path and a reason for each fault
 */
export function parseKitEntry(input: unknown): KitEntry {
  const { kind } = parsed(
    yup.object({ kind: yup.string().oneOf(KIT_KINDS).required() }).required(),
    input,
  ) as { kind: KitItem['kind'] };
  const entry = parsed(kitEntrySchema(kind), input) as KitEntry;
  if (entry.kind === 'capacitor-booster' && entry.volts > entry.cells * entry.cellVolts)
    throw faultError(
      faultAt('volts', 'bankVolts', {
        max: (entry.cells * entry.cellVolts).toFixed(1),
        cells: entry.cells,
      }),
      entry.volts,
    );
  return entry;
}

/** Limits of a lead set and a battery's rating, for whoever types them. */
export const KIT_PART_RANGES = { ...LEAD_RANGES, ...BATTERY_RANGES };

/** How a house begins: who works here, which vans with what on them, and with which atlas. */
export interface SetUp {
  readonly crew: readonly { readonly name: string; readonly role: (typeof CREW_ROLES)[number] }[];
  /** Kit by the names of the usual set. */
  readonly vans: readonly { readonly name: string; readonly kit: readonly string[] }[];
  readonly atlas: 'shipped' | 'empty';
}

const CREW_MOST = 50;
const VANS_MOST = 30;

export const SET_UP = record({
  crew: yup
    .array()
    .of(record({ name: shortText(40), role: yup.string().oneOf(CREW_ROLES).required() }).required())
    .min(1)
    .max(CREW_MOST)
    .required(),
  vans: yup
    .array()
    .of(record({ name: shortText(40), kit: yup.array().of(idText()).max(40).required() }).required())
    .min(1)
    .max(VANS_MOST)
    .required(),
  atlas: yup
    .string()
    .oneOf(['shipped', 'empty'] as const)
    .required(),
}).required();

/** The set-up of a house. @throws yup.ValidationError */
export const parseSetUp = (input: unknown): SetUp => parsed(SET_UP, input) as SetUp;
