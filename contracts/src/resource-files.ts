import type { KitItem } from '@voltrek/core/sources';
import * as yup from 'yup';
import { rating, record } from './calc/parts.js';
import { parseStoredEvent } from './job-event.js';
import {
  BATTERY_MOVE_KINDS,
  BATTERY_STATES,
  CALL_CHANGE_KINDS,
  CALL_STATES,
  type FileResource,
} from './record.js';
import { KIT_KINDS, kitShape, parseKitEntry } from './record-entries.js';
import { idText, instantText, maybeId, placeText, shortText, underPath, uuid } from './text.js';
import { CREW_ROLES } from './wire.js';
import { faultAt, faultError } from './fault.js';

const moment = () => instantText().required();
const maybeMoment = () => instantText().nullable().defined();
const uuidText = () => uuid().required();
const maybeUuid = () => uuid().nullable().defined();
const maybeText = (max: number) => yup.string().min(1).max(max).nullable().defined();
const place = () => yup.number().integer().min(0).max(3).nullable().defined();
const person = () =>
  record({ id: uuidText(), name: maybeText(80), phone: maybeText(40) })
    .nullable()
    .default(undefined)
    .defined();

/** Rows of one kind in a file: a resource, with a list of what belongs to each where it has one. */
export interface ResourceRows {
  /** The name of a row in a CSV. */
  readonly row: string;
  readonly schema: yup.ObjectSchema<yup.Maybe<yup.AnyObject>>;
  readonly list: {
    readonly field: string;
    readonly row: string;
    /** By the kind of the entry where the kinds differ in their fields; any kind serves where they do not. */
    readonly schemaOf: (kind: string) => yup.ObjectSchema<yup.Maybe<yup.AnyObject>> | null;
    readonly kinds: readonly string[];
  } | null;
}

const same = (schema: yup.ObjectSchema<yup.Maybe<yup.AnyObject>>) => ({
  schemaOf: () => schema,
  kinds: [''],
});
const kitKinds: readonly string[] = KIT_KINDS;
/** A piece of kit on its van, by the fields of its kind. */
const kitItemSchema = (kind: string) =>
  kitKinds.includes(kind)
    ? record({
        id: idText(),
        retiredAt: maybeMoment(),
        kind: yup.string().required(),
        ...kitShape(kind as KitItem['kind']),
      })
    : null;

/** The rows of each resource's file, in the order that their files are brought in: each names only what stands before it, or in the atlas. */
export const RESOURCE_ROWS: Readonly<Record<FileResource, ResourceRows>> = {
  crew: {
    row: 'crew',
    schema: record({
      id: idText(),
      name: shortText(40),
      role: yup.string().oneOf(CREW_ROLES).required(),
      retiredAt: maybeMoment(),
    }),
    list: null,
  },
  kit: {
    row: 'van',
    schema: record({ id: idText(), name: shortText(40), retiredAt: maybeMoment() }),
    list: { field: 'items', row: 'item', schemaOf: kitItemSchema, kinds: KIT_KINDS },
  },
  vehicles: {
    row: 'vehicle',
    schema: record({
      id: idText(),
      plate: maybeText(16),
      fleetNumber: maybeText(40),
      serialNumber: maybeText(40),
      modelId: idText(),
      owner: person(),
      notes: yup.string().max(400).defined(),
      createdAt: moment(),
    }),
    list: null,
  },
  batteries: {
    row: 'battery',
    schema: record({
      id: uuidText(),
      code: shortText(12),
      rating: rating(),
      dateMark: maybeText(20),
      state: yup.string().oneOf(BATTERY_STATES).required(),
      vehicleId: maybeId(),
      place: place(),
      vanId: maybeId(),
      since: moment(),
    }),
    list: {
      field: 'moves',
      row: 'move',
      ...same(
        record({
          kind: yup.string().oneOf(BATTERY_MOVE_KINDS).required(),
          at: moment(),
          by: idText(),
          vehicleId: maybeId(),
          place: place(),
          vanId: maybeId(),
          note: yup.string().max(200).defined(),
          jobId: maybeUuid(),
          eventId: maybeUuid(),
        }),
      ),
    },
  },
  calls: {
    row: 'call',
    schema: record({
      id: idText(),
      number: yup.number().integer().min(1).required(),
      receivedAt: moment(),
      title: shortText(120),
      placeName: placeText(),
      said: yup.string().max(400).defined(),
      modelId: idText(),
      vehicleId: idText(),
      caller: person(),
      ambientC: yup.number().min(-60).max(70).required(),
      urgent: yup.boolean().required(),
      state: yup.string().oneOf(CALL_STATES).required(),
      vanId: maybeId(),
      technicianId: maybeId(),
      promisedAt: maybeMoment(),
      endedAt: maybeMoment(),
    }),
    list: {
      field: 'changes',
      row: 'change',
      ...same(
        record({
          kind: yup.string().oneOf(CALL_CHANGE_KINDS).required(),
          at: moment(),
          by: idText(),
          vanId: maybeId(),
          technicianId: maybeId(),
          reason: yup.string().max(200).defined(),
        }),
      ),
    },
  },
  jobs: {
    row: 'job',
    schema: record({ id: uuidText(), callId: idText(), vehicleId: idText(), vanId: idText() }),
    list: {
      field: 'events',
      row: 'event',
      ...same(
        record({
          id: uuidText(),
          at: moment(),
          heardAt: instantText().optional(),
          sentBy: yup.string().max(80).optional(),
          by: idText(),
          type: yup.string().required(),
          data: yup.object().required(),
        }),
      ),
    },
  },
};

/** A row of a resource's file: its fields, and its list where it has one. */
export type ResourceRow = Readonly<Record<string, unknown>>;

const STATE_NAMES: Readonly<Record<string, string>> = {
  fitted: 'vehicleId and place',
  'on-van': 'vanId',
};

/**
 * One row of a resource's file with its list.
 *
 * @throws yup.ValidationError with a path and a reason for each fault
 */
export function parseResourceRow(resource: FileResource, input: unknown): ResourceRow {
  const { schema, list } = RESOURCE_ROWS[resource];
  const options = { abortEarly: false, strict: true } as const;
  const shape = list
    ? schema.shape({ [list.field]: yup.array().of(yup.mixed().required()).required() })
    : schema;
  const row = shape.required().noUnknown().validateSync(input, options) as ResourceRow;
  if (resource === 'batteries' && !standsAsItSays(row))
    throw faultError(
      faultAt('state', 'stateNames', {
        state: String(row.state),
        names: STATE_NAMES[String(row.state)]!,
      }),
      row,
    );
  if (!list) return row;
  const entries = row[list.field] as readonly unknown[];
  entries.forEach((entry, i) =>
    underPath(`${list.field}[${i}]`, () => checkEntry(resource, list, row, entry)),
  );
  return row;
}

const standsAsItSays = ({ state, vehicleId, place: at, vanId }: ResourceRow): boolean =>
  state === 'fitted' ? vehicleId !== null && at !== null : state === 'on-van' ? vanId !== null : true;

function checkEntry(
  resource: FileResource,
  list: NonNullable<ResourceRows['list']>,
  row: ResourceRow,
  entry: unknown,
): void {
  const given = (entry ?? {}) as ResourceRow;
  const schema = list.schemaOf(String(given.kind));
  if (!schema) throw faultError(faultAt('kind', 'oneOf', { values: list.kinds.join(', ') }), entry);
  schema.required().validateSync(entry, { abortEarly: false, strict: true });
  if (resource === 'kit') {
    const { id: _id, retiredAt: _retiredAt, ...kit } = given;
    parseKitEntry(kit);
  }
  if (resource === 'jobs') parseStoredEvent({ ...given, jobId: row.id });
}
