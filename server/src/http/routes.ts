import {
  ADDRESS_CHANGE,
  type Answers,
  BACKUP_WANTED,
  BATTERY_MOVE,
  CALL_CHANGE,
  CASE_READING,
  CONFIRMATION,
  CREW_ENTRY,
  DOOR_CHANGE,
  ENTRY_CHANGE,
  EVENT_DATA,
  EVENT_ENVELOPE,
  JOBS_WANTED,
  NEW_BATTERY,
  NEW_CALL,
  NEW_EXAM,
  NEW_PASSKEY,
  NEW_SHIFT_END,
  PASSKEY_SIGN_IN,
  PIN_CHANGE,
  PIN_SIGN_IN,
  PROBES_PLACED,
  RULE_SETTING,
  SET_UP,
  VAN_ENTRY,
  VEHICLE,
  VEHICLE_CHANGE,
} from '@voltrek/contracts/api';
import { type Act, JOB_FILTER_KEYS, KIT_KINDS, kitEntrySchema } from '@voltrek/contracts';
import type { Schema } from 'yup';
import { JOBS_PAGE_MAX, WATCH_PAGE_MAX } from './list-page.js';

export type Method = 'GET' | 'POST' | 'PUT' | 'DELETE';

/** A file that comes as a form, with the name of its part and its fields beside it. */
interface Form {
  readonly file: string;
  readonly fields: readonly string[];
}

/** Everything that is true of one address, beside the type of its answer and its handler. */
interface RouteFacts {
  /** The right that it needs while sign-in is required; `open` ones need none. */
  readonly act: Act | 'open';
  /** Its purpose, in a line. */
  readonly summary: string;
  /** The schema of its JSON body, or several of which one fits. */
  readonly body?: Schema | readonly Schema[] | null;
  readonly form?: Form;
  /** Its query parameters, beside those of a list. */
  readonly query?: readonly QueryParameter[];
  /** It answers a list, by pages where `limit` asks for them. */
  readonly isList?: boolean;
  /** Rows of a page at most, where that is not `PAGE_MAX`. */
  readonly pageMax?: number;
  /** Fields of the body that take one of these named schemas. */
  readonly named?: Readonly<Record<string, readonly string[]>>;
  /** The media type of its answer where that is no JSON with a schema. */
  readonly type?: string;
}

/** The query parameters of the API, with their purpose. */
export const QUERY_PARAMETERS = {
  q: 'Words to search for',
  verdict: 'Only jobs with this verdict',
  from: 'Only jobs closed at this moment or later, ISO 8601',
  to: 'Only jobs closed before this moment, ISO 8601',
  vanId: 'Only jobs of this van',
  by: 'Only jobs of this person',
  machineClass: 'Only jobs on machines of this class',
  startedBy: 'Only jobs whose machine was started by this; none: not started',
  suspect: 'Only jobs with this part at fault; none: no part',
  kit: 'Only jobs in which this kit helped',
  overridden: 'Only jobs in which this rule or hazard was overridden',
  runningFrom: 'Only jobs that ran within the bar that begins at so many minutes after arrival',
  returned: 'yes: only jobs whose vehicle came back within 30 days',
  place: 'The name of a place',
  limit: 'Rows of a page at most',
  after: 'The cursor of the page before',
  language: 'The language of the file: en or de; else that of the request',
} as const;
export type QueryParameter = keyof typeof QUERY_PARAMETERS;

/** A route that changes something tells its body (`null`: none); one whose answer has no schema tells its media type. */
type FactsOf<A extends string> = RouteFacts &
  (A extends `${'POST' | 'PUT'} ${string}` ? { readonly body: unknown } | { readonly form: Form } : unknown) &
  (A extends keyof Answers ? unknown : { readonly type: string });

/** The name of the schema of an event's data in the description. */
export const dataOf = (eventType: string): string => `data-of-${eventType}`;

const KIT_BY_KIND = KIT_KINDS.map((kind) => kitEntrySchema(kind));

/**
 * Every address of the API. Authorization, OpenAPI, the fuzzer and `serve` read this table. An answer type without a row does not compile,
 * and neither does a row without its body or media type.
 */
const TABLE = {
  'GET /api/health': {
    act: 'open',
    summary: 'Whether the server is well, and how old its last good backup is',
  },
  'GET /api/sign-in': { act: 'open', summary: 'How this device stands with the door' },
  'POST /api/sign-in/pin': { act: 'open', summary: 'Sign in with a name and a PIN', body: PIN_SIGN_IN },
  'POST /api/sign-in/passkey-question': {
    act: 'open',
    summary: 'What a passkey must answer',
    type: 'application/json',
    body: null,
  },
  'POST /api/sign-in/passkey': { act: 'open', summary: 'Sign in with a passkey', body: PASSKEY_SIGN_IN },
  'GET /api/openapi.json': { act: 'look', summary: 'This description', type: 'application/json' },
  'GET /api/stream': {
    act: 'look',
    summary: 'What happens, as it happens (server-sent events)',
    type: 'text/event-stream',
  },
  'GET /api/device': { act: 'look', summary: 'What a device keeps for a time with no network' },
  'POST /api/device/jobs': { act: 'look', summary: 'Several jobs at once', body: JOBS_WANTED },
  'GET /api/board': { act: 'look', summary: 'The calls of the board', isList: true },
  'GET /api/board/:callId/outset': {
    act: 'look',
    summary: 'A job as it would begin for this call: its machine, batteries and earlier belief',
  },
  'GET /api/board/:callId/changes': { act: 'look', summary: 'What was done with a call', isList: true },
  'GET /api/house': { act: 'look', summary: 'Whether the house is set up' },
  'GET /api/crew': { act: 'look', summary: 'Everybody of the crew, those who left included', isList: true },
  'GET /api/vans': { act: 'look', summary: 'The vans and what they carry', isList: true },
  'GET /api/vehicles': {
    act: 'look',
    summary: 'Vehicles by plate, number or model',
    query: ['q'],
    isList: true,
  },
  'GET /api/vehicles/:vehicleId': { act: 'look', summary: 'A vehicle with its batteries and visits' },
  'GET /api/models': { act: 'look', summary: 'Machines of the atlas by what was typed', query: ['q'] },
  'GET /api/models/schema.json': {
    act: 'look',
    summary: 'The JSON Schema of a file of machines',
    type: 'application/json',
  },
  'GET /api/models/:modelId': { act: 'look', summary: 'An entry of the atlas with its history' },
  'GET /api/models/:modelId/photos/:photoId': {
    act: 'look',
    summary: 'A photo of a machine, JPEG',
    type: 'image/jpeg',
  },
  'GET /api/jobs/:jobId/photos/:photoId': {
    act: 'look',
    summary: 'A photo of a job, JPEG',
    type: 'image/jpeg',
  },
  'GET /api/batteries': { act: 'look', summary: 'Batteries that sit in no vehicle', isList: true },
  'GET /api/batteries/:batteryId': {
    act: 'look',
    summary: 'A battery with all it went through, by id or by the code on its label',
  },
  'GET /api/practice/schema.json': {
    act: 'look',
    summary: 'The JSON Schema of a file of a written case',
    type: 'application/json',
  },
  'GET /api/exams': {
    act: 'look',
    summary: 'Exams that were taken: all to a lead, to others their own',
    isList: true,
  },
  'GET /api/exams/:examId': { act: 'look', summary: 'An exam as a file' },
  'GET /api/rules': { act: 'look', summary: 'The house rules, and who set them' },
  'GET /api/backups': { act: 'look', summary: 'The backups there are' },
  'GET /api/files/:resource/schema.json': {
    act: 'look',
    summary: 'The JSON Schema of a file',
    type: 'application/json',
  },
  'GET /api/shifts': { act: 'look', summary: 'Ends of shifts, the newest first', isList: true },
  'GET /api/shifts/left': { act: 'look', summary: 'What this shift would leave to the next now' },
  'POST /api/shifts': {
    act: 'send',
    summary: 'Give the shift over; sent again it changes nothing',
    body: NEW_SHIFT_END,
  },
  'POST /api/shifts/:shiftId/signature': {
    act: 'send',
    summary: 'Take the shift over, by somebody else',
    body: CONFIRMATION,
  },
  'GET /api/watch': {
    act: 'look',
    summary: 'Vehicles that the house has worked on, as their jobs left them: for odds on a cold night',
    query: ['after', 'limit'],
    pageMax: WATCH_PAGE_MAX,
  },
  'GET /api/follow-ups': { act: 'look', summary: 'What verdicts promised, by its day', isList: true },
  'GET /api/follow-ups/calendar.ics': {
    act: 'look',
    summary: 'The same as a calendar',
    query: ['language'],
    type: 'text/calendar',
  },
  'GET /api/instruments': { act: 'look', summary: 'The linked instruments as they stand', isList: true },
  'GET /api/instruments/stream': {
    act: 'look',
    summary: 'The same, as it changes (server-sent events)',
    type: 'text/event-stream',
  },
  'GET /api/instruments/weather': {
    act: 'look',
    summary: 'What the weather service says of a place',
    query: ['place'],
  },
  'GET /api/instruments/forecast': {
    act: 'look',
    summary: 'The lows of the nights to come at a place, by the weather service',
    query: ['place'],
  },
  'GET /api/jobs': {
    act: 'look',
    summary: 'Jobs by what was typed, newest first, a page at a time',
    query: ['q', ...JOB_FILTER_KEYS, 'after', 'limit'],
    pageMax: JOBS_PAGE_MAX,
  },
  'GET /api/jobs/figures': {
    act: 'look',
    summary: 'What closed jobs come to: minutes, causes, returns, promises, odds',
    query: JOB_FILTER_KEYS,
  },
  'GET /api/jobs/:jobId': { act: 'look', summary: 'A job with its log and all that it is worked with' },
  'GET /api/jobs/:jobId/sheet': { act: 'look', summary: 'What a job comes to' },
  'GET /api/sign-in/house': {
    act: 'look',
    summary: 'Who has a PIN or a passkey, who is signed in where, and what was done',
  },
  'POST /api/sign-in/out': { act: 'look', summary: 'Sign everybody out on this device', body: null },
  'PUT /api/sign-in/pins/:crewId': { act: 'look', summary: 'Set the PIN of somebody', body: PIN_CHANGE },
  'POST /api/sign-in/passkeys/question': {
    act: 'look',
    summary: 'What a new passkey must answer',
    body: CONFIRMATION,
    type: 'application/json',
  },
  'POST /api/sign-in/passkeys': { act: 'look', summary: 'Add a passkey', body: NEW_PASSKEY },
  'DELETE /api/sign-in/passkeys/:passkeyId': { act: 'look', summary: 'Remove a passkey' },
  'DELETE /api/sign-in/sessions/:sessionId': { act: 'look', summary: 'End a session' },
  'POST /api/jobs/:jobId/events': {
    act: 'assist',
    summary: 'Append an event to a job; sent again it changes nothing',
    body: EVENT_ENVELOPE,
    named: { data: Object.keys(EVENT_DATA).map(dataOf) },
  },
  'POST /api/jobs/:jobId/photos': {
    act: 'assist',
    summary: 'Send a photo of a job; sent again it changes nothing',
    form: { file: 'photo', fields: ['by', 'id'] },
  },
  'POST /api/exams': {
    act: 'assist',
    summary: 'Send an exam in; it is marked here, and sent again it changes nothing',
    body: NEW_EXAM,
  },
  'PUT /api/instruments/probes': {
    act: 'assist',
    summary: 'Say where the probes were put',
    body: PROBES_PLACED,
    type: 'application/json',
  },
  'POST /api/instruments/readings': {
    act: 'assist',
    summary: 'Read a linked instrument of a training bench, held to a case of practice',
    body: CASE_READING,
  },
  'POST /api/instruments/capture': {
    act: 'assist',
    summary: 'Capture a crank, a line of JSON for each part',
    type: 'application/x-ndjson',
    body: null,
  },
  'POST /api/board': {
    act: 'send',
    summary: 'Put a call on the board; sent again it changes nothing',
    body: NEW_CALL.required(),
  },
  'POST /api/board/:callId/changes': {
    act: 'send',
    summary: 'Take, pass on, give back, call off or reopen a call',
    body: CALL_CHANGE,
  },
  'POST /api/vehicles': { act: 'work', summary: 'Add a vehicle', body: VEHICLE.required() },
  'PUT /api/vehicles/:vehicleId': {
    act: 'work',
    summary: 'Change a vehicle, as it was seen last',
    body: VEHICLE_CHANGE,
  },
  'POST /api/batteries': {
    act: 'work',
    summary: 'Add a battery to the record',
    body: NEW_BATTERY.required(),
  },
  'POST /api/batteries/:batteryId/moves': {
    act: 'work',
    summary: 'Fit, take out, charge, carry or scrap a battery',
    body: BATTERY_MOVE,
  },
  'POST /api/vans/items/:itemId/recharge': {
    act: 'work',
    summary: 'A piece of kit is full again',
    body: CONFIRMATION,
  },
  'POST /api/vans/marks/:markId/done': {
    act: 'work',
    summary: 'What a piece of kit still needed is done',
    body: CONFIRMATION,
  },
  'GET /api/models/export.json': { act: 'work', summary: 'The atlas as JSON', type: 'application/json' },
  'GET /api/models/export.csv': { act: 'work', summary: 'The atlas as CSV', type: 'text/csv' },
  'GET /api/files/:resource/export.json': {
    act: 'work',
    summary: 'Crew, kit, vehicles, batteries, calls or jobs as JSON',
    type: 'application/json',
  },
  'GET /api/files/:resource/export.csv': { act: 'work', summary: 'The same as CSV', type: 'text/csv' },
  'POST /api/models': { act: 'find', summary: 'Add an entry to the atlas', body: ENTRY_CHANGE },
  'PUT /api/models/:modelId': {
    act: 'find',
    summary: 'Correct an entry, as it was seen last',
    body: ENTRY_CHANGE,
  },
  'POST /api/models/:modelId/confirmations': {
    act: 'find',
    summary: 'Confirm an entry with a second pair of eyes',
    body: CONFIRMATION,
  },
  'POST /api/models/:modelId/photos': {
    act: 'find',
    summary: 'Add a photo of a machine',
    form: { file: 'photo', fields: ['by', 'id'] },
  },
  'POST /api/house': { act: 'lead', summary: 'Set the house up, once', body: SET_UP },
  'POST /api/crew': { act: 'lead', summary: 'Add somebody to the crew', body: CREW_ENTRY },
  'PUT /api/crew/:crewId': { act: 'lead', summary: 'Change somebody of the crew', body: CREW_ENTRY },
  'POST /api/vans': { act: 'lead', summary: 'Add a van', body: VAN_ENTRY },
  'PUT /api/vans/:vanId': { act: 'lead', summary: 'Change a van', body: VAN_ENTRY },
  'POST /api/vans/:vanId/items': { act: 'lead', summary: 'Add a piece of kit', body: KIT_BY_KIND },
  'PUT /api/vans/items/:itemId': { act: 'lead', summary: 'Change a piece of kit', body: KIT_BY_KIND },
  'POST /api/vans/items/:itemId/retire': {
    act: 'lead',
    summary: 'Retire a piece of kit',
    body: CONFIRMATION,
  },
  'GET /api/people/:personId/export': { act: 'lead', summary: 'What is known of a person' },
  'POST /api/people/:personId/erase': {
    act: 'lead',
    summary: 'Forget a person: jobs and records stay, nameless',
    body: CONFIRMATION,
  },
  'POST /api/models/preview': {
    act: 'lead',
    summary: 'What a file would change in the atlas',
    form: { file: 'file', fields: [] },
  },
  'POST /api/models/import': {
    act: 'lead',
    summary: 'Take a file of machines over, all or nothing',
    form: { file: 'file', fields: ['by', 'basis'] },
  },
  'POST /api/exams/:examId/signature': {
    act: 'lead',
    summary: 'Sign an exam that somebody took',
    body: CONFIRMATION,
  },
  'POST /api/rules': { act: 'lead', summary: 'Set a house rule', body: RULE_SETTING },
  'POST /api/backups': { act: 'lead', summary: 'Back up now', body: BACKUP_WANTED },
  'POST /api/files/:resource/preview': {
    act: 'lead',
    summary: 'What a file would change',
    form: { file: 'file', fields: [] },
  },
  'POST /api/files/:resource/import': {
    act: 'lead',
    summary: 'Take a file over, all or nothing',
    form: { file: 'file', fields: ['by', 'basis'] },
  },
  'GET /api/instruments/addresses': {
    act: 'lead',
    summary: 'Where the instruments of this server listen, and where they may',
  },
  'PUT /api/instruments/addresses/:instrument': {
    act: 'lead',
    summary: 'Link an instrument, or none',
    body: ADDRESS_CHANGE,
  },
  'PUT /api/sign-in/door': {
    act: 'lead',
    summary: 'Require sign-in, or open to everybody',
    body: DOOR_CHANGE,
  },
} as const satisfies { readonly [A in keyof Answers]: FactsOf<A> } & Readonly<Record<string, RouteFacts>>;

/** `METHOD /path`, as Express writes the path. */
export type Address = keyof typeof TABLE;

/** Refuses at compile time a row that lacks its body or media type. */
TABLE satisfies { readonly [A in Address]: FactsOf<A> };

/** One address with all that is true of it. */
export interface Route extends RouteFacts {
  readonly address: Address;
  readonly method: Method;
  readonly path: string;
}

export const ROUTES: readonly Route[] = (Object.keys(TABLE) as Address[]).map((address) => {
  const [method, path] = address.split(' ') as [Method, string];
  return { address, method, path, ...TABLE[address] };
});
