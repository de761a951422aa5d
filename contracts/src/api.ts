import type { JobEvent, JobSheet } from '@voltrek/core/job';
import type { KitItem } from '@voltrek/core/sources';
import type { AtlasEntry, ImportReport, MachineSearch } from './atlas.js';
import type { BackupState } from './backup.js';
import type { Exam } from './exam.js';
import type { HouseFigures } from './job-filter.js';
import type { InstrumentAddresses, InstrumentNow, Weather } from './instruments.js';
import type { Battery, BatteryRecord, CallChange, Person, Vehicle, VehicleSummary } from './record.js';
import type { ShiftEnd, ShiftLeft } from './shift.js';
import type { Forecast, WatchPage } from './watch.js';
import type { SignInHouse, SignInState } from './sign-in.js';
import type {
  BoardCall,
  Call,
  CallOutset,
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
  readonly usualKit: Readonly<Record<string, KitItem>>;
}

/** The server's answer to an event that it has taken. */
export interface EventTaken {
  readonly event: JobEvent;
  readonly revision: number;
  /** False when it was in the log already: a resend changes nothing. */
  readonly isNew: boolean;
  /** The server's clock when it received it, ISO 8601: a device knows by it how far its own is off. */
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
  'GET /api/board/:callId/outset': CallOutset;
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
  'POST /api/files/:resource/preview': ImportReport;
  'POST /api/files/:resource/import': ImportReport;
  'GET /api/follow-ups': readonly DueFollowUp[];
  'GET /api/shifts': readonly ShiftEnd[];
  'GET /api/shifts/left': ShiftLeft;
  'POST /api/shifts': ShiftEnd;
  'POST /api/shifts/:shiftId/signature': ShiftEnd;
  'GET /api/instruments': readonly InstrumentNow[];
  'GET /api/instruments/addresses': InstrumentAddresses;
  'PUT /api/instruments/addresses/:instrument': InstrumentAddresses;
  'POST /api/instruments/readings': InstrumentNow;
  'GET /api/instruments/weather': Weather;
  'GET /api/instruments/forecast': Forecast;
  'GET /api/watch': WatchPage;
  'GET /api/jobs': LogPage;
  'GET /api/jobs/figures': HouseFigures;
  'GET /api/jobs/:jobId': JobDetail;
  'GET /api/jobs/:jobId/sheet': JobSheet;
  'POST /api/jobs/:jobId/events': EventTaken;
  'POST /api/jobs/:jobId/photos': { readonly id: string };
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

/** The schemas that bodies are judged by. */
export { EVENT_DATA } from './job-event.js';
export { CONFIRMATION, ENTRY_CHANGE } from './atlas.js';
export { BACKUP_WANTED } from './backup.js';
export { NEW_EXAM } from './exam.js';
export { ADDRESS_CHANGE, CASE_READING, PROBES_PLACED } from './instruments.js';
export { EVENT_ENVELOPE } from './job-event.js';
export { JOBS_WANTED } from './jobs-wanted.js';
export {
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
export { RULE_SETTING } from './rule-setting.js';
export { NEW_SHIFT_END } from './shift.js';
export { DOOR_CHANGE, NEW_PASSKEY, PASSKEY_SIGN_IN, PIN_CHANGE, PIN_SIGN_IN } from './sign-in.js';
