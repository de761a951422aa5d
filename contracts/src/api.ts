import type { JobEvent, JobSheet } from '@voltrek/core/job';
import type * as yup from 'yup';
import {
  type AtlasEntry,
  CONFIRMATION,
  ENTRY_CHANGE,
  type ImportReport,
  type MachineSearch,
} from './atlas.js';
import { BACKUP_WANTED, type BackupState } from './backup.js';
import { type Exam, NEW_EXAM } from './exam.js';
import {
  ADDRESS_CHANGE,
  CASE_READING,
  type InstrumentAddresses,
  type InstrumentNow,
  PROBES_PLACED,
  type Weather,
} from './instruments.js';
import { EVENT_ENVELOPE } from './job-event.js';
import { JOBS_WANTED } from './jobs-wanted.js';
import type {
  Battery,
  BatteryRecord,
  CallChange,
  KitEntry,
  Person,
  Vehicle,
  VehicleSummary,
} from './record.js';
import {
  BATTERY_MOVE,
  CALL_CHANGE,
  CREW_ENTRY,
  NEW_BATTERY,
  NEW_CALL,
  SET_UP,
  VAN_ENTRY,
  VEHICLE,
  VEHICLE_CHANGE,
} from './record-entries.js';
import { RULE_SETTING } from './rule-setting.js';
import {
  DOOR_CHANGE,
  NEW_PASSKEY,
  PASSKEY_SIGN_IN,
  PIN_CHANGE,
  PIN_SIGN_IN,
  type SignInHouse,
  type SignInState,
} from './sign-in.js';
import type {
  BoardCall,
  Call,
  CrewMember,
  DevicePack,
  DueFollowUp,
  JobDetail,
  LogPage,
  RulesPage,
  Van,
  VehicleRecord,
} from './wire.js';

/** Whether anybody works here yet, and what vans of the trade usually carry, by name. */
export interface HouseNow {
  readonly isSetUp: boolean;
  readonly usualKit: Readonly<Record<string, KitEntry>>;
}

/** The server's answer to an event that it has taken. */
export interface EventTaken {
  readonly event: JobEvent;
  readonly revision: number;
  /** False when it was in the log already: a resend changes nothing. */
  readonly isNew: boolean;
  /** The server's clock when it heard of it, ISO 8601: a device knows by it how far its own is off. */
  readonly now: string;
}

/** Whether the server is well, and how old its last good backup is. */
export interface Health {
  readonly status: 'ok';
  readonly lastBackup: { readonly at: string; readonly ageMinutes: number } | null;
  readonly backupProblem: string | null;
}

/** The data of a person, to be taken along. */
export interface PersonExport {
  readonly format: 'voltrek-person';
  readonly version: 1;
  readonly person: Person;
  readonly vehicles: readonly Omit<Vehicle, 'ownerId' | 'revision'>[];
  readonly calls: readonly Pick<Call, 'id' | 'number' | 'receivedAt' | 'placeName' | 'said'>[];
}

/** The JSON answer of each address where all is well. The schema that is served is made from these types. */
export interface Answers {
  'GET /api/health': Health;
  'GET /api/device': DevicePack;
  'POST /api/device/jobs': readonly JobDetail[];
  'GET /api/board': readonly BoardCall[];
  'POST /api/board': Call;
  'GET /api/board/:callId/changes': readonly CallChange[];
  'POST /api/board/:callId/changes': readonly BoardCall[];
  'GET /api/house': HouseNow;
  'POST /api/house': HouseNow;
  'GET /api/crew': readonly CrewMember[];
  'POST /api/crew': readonly CrewMember[];
  'PUT /api/crew/:crewId': readonly CrewMember[];
  'GET /api/vans': readonly Van[];
  'POST /api/vans': readonly Van[];
  'PUT /api/vans/:vanId': readonly Van[];
  'POST /api/vans/:vanId/items': readonly Van[];
  'PUT /api/vans/items/:itemId': readonly Van[];
  'POST /api/vans/items/:itemId/retire': readonly Van[];
  'POST /api/vans/items/:itemId/recharge': readonly Van[];
  'POST /api/vans/marks/:markId/done': readonly Van[];
  'GET /api/vehicles': readonly VehicleSummary[];
  'POST /api/vehicles': Vehicle;
  'GET /api/vehicles/:vehicleId': VehicleRecord;
  'PUT /api/vehicles/:vehicleId': VehicleRecord;
  'GET /api/people/:personId/export': PersonExport;
  'POST /api/people/:personId/erase': Person;
  'GET /api/models': MachineSearch;
  'POST /api/models': AtlasEntry;
  'GET /api/models/:modelId': AtlasEntry;
  'PUT /api/models/:modelId': AtlasEntry;
  'POST /api/models/:modelId/confirmations': AtlasEntry;
  'POST /api/models/:modelId/photos': AtlasEntry;
  'POST /api/models/preview': ImportReport;
  'POST /api/models/import': ImportReport;
  'GET /api/batteries': readonly Battery[];
  'POST /api/batteries': BatteryRecord;
  'GET /api/batteries/:batteryId': BatteryRecord;
  'POST /api/batteries/:batteryId/moves': BatteryRecord;
  'GET /api/exams': readonly Exam[];
  'POST /api/exams': Exam;
  'GET /api/exams/:examId': Exam;
  'POST /api/exams/:examId/signature': Exam;
  'GET /api/rules': RulesPage;
  'POST /api/rules': RulesPage;
  'GET /api/backups': BackupState;
  'POST /api/backups': BackupState;
  'POST /api/files/:noun/preview': ImportReport;
  'POST /api/files/:noun/import': ImportReport;
  'GET /api/follow-ups': readonly DueFollowUp[];
  'GET /api/instruments': readonly InstrumentNow[];
  'GET /api/instruments/addresses': InstrumentAddresses;
  'PUT /api/instruments/addresses/:instrument': InstrumentAddresses;
  'POST /api/instruments/readings': InstrumentNow;
  'GET /api/instruments/weather': Weather;
  'GET /api/jobs': LogPage;
  'GET /api/jobs/:jobId': JobDetail;
  'GET /api/jobs/:jobId/sheet': JobSheet;
  'POST /api/jobs/:jobId/events': EventTaken;
  'GET /api/sign-in': SignInState;
  'POST /api/sign-in/pin': SignInState;
  'POST /api/sign-in/passkey': SignInState;
  'POST /api/sign-in/out': SignInState;
  'GET /api/sign-in/house': SignInHouse;
  'PUT /api/sign-in/door': SignInHouse;
  'PUT /api/sign-in/pins/:crewId': SignInHouse;
  'POST /api/sign-in/passkeys': SignInHouse;
  'DELETE /api/sign-in/passkeys/:passkeyId': SignInHouse;
  'DELETE /api/sign-in/sessions/:sessionId': SignInHouse;
}

/** The JSON body of each address. Kit and the data of events have schemas of their own, by kind. */
export const BODIES: Readonly<Record<string, yup.Schema>> = {
  'POST /api/device/jobs': JOBS_WANTED,
  'POST /api/board': NEW_CALL.required(),
  'POST /api/board/:callId/changes': CALL_CHANGE,
  'POST /api/house': SET_UP,
  'POST /api/crew': CREW_ENTRY,
  'PUT /api/crew/:crewId': CREW_ENTRY,
  'POST /api/vans': VAN_ENTRY,
  'PUT /api/vans/:vanId': VAN_ENTRY,
  'POST /api/vans/items/:itemId/retire': CONFIRMATION,
  'POST /api/vans/items/:itemId/recharge': CONFIRMATION,
  'POST /api/vans/marks/:markId/done': CONFIRMATION,
  'POST /api/vehicles': VEHICLE.required(),
  'PUT /api/vehicles/:vehicleId': VEHICLE_CHANGE,
  'POST /api/people/:personId/erase': CONFIRMATION,
  'POST /api/models': ENTRY_CHANGE,
  'PUT /api/models/:modelId': ENTRY_CHANGE,
  'POST /api/models/:modelId/confirmations': CONFIRMATION,
  'POST /api/batteries': NEW_BATTERY.required(),
  'POST /api/batteries/:batteryId/moves': BATTERY_MOVE,
  'POST /api/exams': NEW_EXAM,
  'POST /api/exams/:examId/signature': CONFIRMATION,
  'POST /api/rules': RULE_SETTING,
  'POST /api/backups': BACKUP_WANTED,
  'PUT /api/instruments/addresses/:instrument': ADDRESS_CHANGE,
  'PUT /api/instruments/probes': PROBES_PLACED,
  'POST /api/instruments/readings': CASE_READING,
  'POST /api/jobs/:jobId/events': EVENT_ENVELOPE,
  'POST /api/sign-in/pin': PIN_SIGN_IN,
  'POST /api/sign-in/passkey': PASSKEY_SIGN_IN,
  'PUT /api/sign-in/door': DOOR_CHANGE,
  'PUT /api/sign-in/pins/:crewId': PIN_CHANGE,
  'POST /api/sign-in/passkeys/question': CONFIRMATION,
  'POST /api/sign-in/passkeys': NEW_PASSKEY,
};

export { EVENT_DATA } from './job-event.js';
