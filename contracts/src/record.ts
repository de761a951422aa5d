import type { BatteryRating } from '@voltrek/core/battery';
import type { BatteryEntry } from '@voltrek/core/job';
import type { KitWithoutId } from '@voltrek/core/sources';

/** A caller or owner. After erasure only the id is left. */
export interface Person {
  readonly id: string;
  readonly name: string | null;
  readonly phone: string | null;
  /** They want no letters and no messages. */
  readonly noLetters: boolean;
  readonly erasedAt: string | null;
}

/** A person as typed. */
export interface PersonEntry {
  readonly name: string;
  readonly phone: string;
  /** They want no letters and no messages; left out: as it was. */
  readonly noLetters?: boolean;
}

/** One machine of somebody's: by plate, fleet or serial number. */
export interface Vehicle {
  readonly id: string;
  readonly plate: string | null;
  readonly fleetNumber: string | null;
  readonly serialNumber: string | null;
  readonly modelId: string;
  readonly ownerId: string | null;
  readonly notes: string;
  /** Counts every change; a change must name the one it was made on. */
  readonly revision: number;
}

/** The numbers that people name a vehicle by. */
export type VehicleNumbers = Pick<Vehicle, 'plate' | 'fleetNumber' | 'serialNumber'>;

/** Returns a vehicle's numbers alone. */
export const vehicleNumbersOf = ({ plate, fleetNumber, serialNumber }: VehicleNumbers): VehicleNumbers => ({
  plate,
  fleetNumber,
  serialNumber,
});

/** A vehicle as a list shows it. */
export interface VehicleSummary extends Vehicle {
  /** Maker and model. */
  readonly modelName: string;
}

/** A vehicle as it is typed: new, or changed on a revision. */
export interface VehicleEntry {
  readonly plate: string | null;
  readonly fleetNumber: string | null;
  readonly serialNumber: string | null;
  readonly modelId: string;
  readonly owner: PersonEntry | null;
  readonly notes: string;
}

export const BATTERY_STATES = ['fitted', 'on-van', 'depot', 'gone', 'scrapped'] as const;
/** The place of a battery: in a vehicle, a van's spare, at the depot, nobody knows where, or scrapped. */
export type BatteryState = (typeof BATTERY_STATES)[number];

export const BATTERY_MOVE_KINDS = [
  'met',
  'fitted',
  'taken-out',
  'charged',
  'to-van',
  'gone',
  'scrapped',
] as const;
/** An act on a battery. `met`: it was in when the vehicle came. `gone`: another was found in its place. */
export type BatteryMoveKind = (typeof BATTERY_MOVE_KINDS)[number];

/** Notes that the house itself puts to a move. Records hold them as they stand; each screen has its own words for them. */
export const MOVE_NOTES = { isNew: 'new in the record', isPromised: 'as promised' } as const;

/** One battery. */
export interface Battery {
  readonly id: string;
  readonly code: string;
  readonly rating: BatteryRating;
  readonly dateMark: string | null;
  readonly state: BatteryState;
  readonly vehicleId: string | null;
  readonly place: number | null;
  readonly vanId: string | null;
  readonly since: string;
}

export interface BatteryMove {
  readonly kind: BatteryMoveKind;
  readonly at: string;
  readonly by: string;
  readonly vehicleId: string | null;
  readonly vehicle: VehicleNumbers | null;
  readonly place: number | null;
  readonly vanId: string | null;
  readonly note: string;
  readonly jobId: string | null;
}

/** A battery with its whole life, whatever it sat in. */
export interface BatteryRecord {
  readonly battery: Battery;
  /** The vehicle that it is in now; null elsewhere. */
  readonly vehicle: VehicleNumbers | null;
  readonly moves: readonly BatteryMove[];
  readonly entries: readonly BatteryEntry[];
  /** Coldest that the vehicle it is in was met in, degC: what it must still do; null where it is in none. */
  readonly coldC: number | null;
  /** Share of its rating that its machine needs at that cold; null where it is in none. */
  readonly needShare: number | null;
}

/** A battery that is entered by hand: a spare, or one bought. */
export interface NewBattery {
  readonly rating: BatteryRating;
  readonly dateMark: string | null;
  readonly vanId: string | null;
  readonly by: string;
}

/** Something done with a battery by hand. */
export interface NewBatteryMove {
  readonly kind: Exclude<BatteryMoveKind, 'met' | 'gone'>;
  readonly by: string;
  readonly vehicleId: string | null;
  readonly place: number | null;
  readonly vanId: string | null;
  readonly note: string;
}

export const CALL_STATES = ['waiting', 'taken', 'done', 'called-off'] as const;
/** `taken`: somebody is on it; `done`: its job is closed. */
export type CallState = (typeof CALL_STATES)[number];

export const CALL_CHANGE_KINDS = [
  'reported',
  'taken',
  'passed-on',
  'given-back',
  'called-off',
  'reopened',
] as const;
/** An act on a call besides its job. */
export type CallChangeKind = (typeof CALL_CHANGE_KINDS)[number];

export interface CallChange {
  readonly kind: CallChangeKind;
  readonly at: string;
  readonly by: string;
  readonly vanId: string | null;
  readonly technicianId: string | null;
  readonly reason: string;
}

/** A change of a call as it is reported. */
export interface NewCallChange {
  readonly kind: Exclude<CallChangeKind, 'reported'>;
  readonly by: string;
  readonly vanId: string | null;
  readonly technicianId: string | null;
  readonly reason: string;
  /** A time of arrival that is promised with it, ISO 8601. */
  readonly promisedAt?: string;
}

/** A piece of kit as typed; the server gives it its id. */
export type KitEntry = KitWithoutId;

/** The resources with a file of their own beside the atlas, in the order that files are brought in. */
export const FILE_RESOURCES = ['crew', 'kit', 'vehicles', 'batteries', 'calls', 'jobs'] as const;
export type FileResource = (typeof FILE_RESOURCES)[number];
