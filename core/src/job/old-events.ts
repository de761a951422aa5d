import { underWord } from '../quantities/index.js';
import type { JobEvent } from './events/event.js';

/** An event as some version of the program wrote it. */
export interface StoredEvent {
  readonly id: string;
  readonly jobId: string;
  readonly at: string;
  readonly heardAt?: string;
  readonly by: string;
  readonly type: string;
  readonly data: unknown;
}

type Fields = Readonly<Record<string, unknown>>;

/** The new name of an old event type. */
const TYPES: Readonly<Record<string, string>> = {
  'block.replaced': 'battery.replaced',
  'machine.identified': 'model.identified',
  'check.recorded': 'finding.recorded',
};

const KEYS: Readonly<Record<string, string>> = {
  block: 'battery',
  blocks: 'batteries',
  bite: 'contact',
  machineId: 'modelId',
  probe: 'check',
};

/** Words that stood as values, by the key that they stood under; a key that is not named here keeps its values. */
const VALUES: Readonly<Record<string, Readonly<Record<string, string>>>> = {
  check: { gravity: 'specific-gravity', 'both-blocks': 'both-batteries' },
  verdict: { recheck: 'charge-first' },
  sourceKind: { 'spare-blocks': 'spare-batteries' },
  kind: { 'spare-blocks': 'spare-batteries', block: 'battery' },
};

/** Identifiers that were put together from other words. */
const IDS: readonly (readonly [key: string, from: RegExp, to: string])[] = [
  ['pointId', /^block-(plus|minus)/, 'battery-$1'],
  ['optionId', /#block(\d)/, '#battery$1'],
];

/** Looks that had a result of their own are findings of the check they belong to. */
const LOOKS: Readonly<Record<string, readonly [check: string, fault: string, clear: string]>> = {
  joints: ['look-joints', 'deposits', 'clean'],
  belt: ['look-belt', 'bad', 'sound'],
  immobiliser: ['immobiliser-lamp', 'lit', 'out'],
  fuel: ['fuel-gauge', 'empty', 'has-fuel'],
  'charge-port-free': ['traction-gauge', 'flat', 'has-charge'],
};

/**
 * An event of any earlier version as today's program reads it. What stands in the log is never changed; this is applied wherever a log is
 * read: out of the database, from a file, or from what waits on a device. An event of today comes back as it is.
 *
 * @returns null for an event that says nothing any more (which stage was on a screen)
 */
export function upgradeEvent(stored: StoredEvent): JobEvent | null {
  if (stored.type === 'stage.opened') return null;
  const type = underWord(TYPES, stored.type) ?? stored.type;
  const data = renamed(stored.data) as Fields;
  const upgraded = stored.type === 'check.recorded' ? findingOfLook(data) : data;
  return { ...stored, type, data: upgraded } as JobEvent;
}

/** A whole log, oldest first, as today's program reads it. */
export function upgradeLog(stored: readonly StoredEvent[]): JobEvent[] {
  return stored.flatMap((event) => upgradeEvent(event) ?? []);
}

function findingOfLook({ check, result }: Fields): Fields {
  const [now, fault, clear] = underWord(LOOKS, String(check)) ?? [check, 'fault', 'clear'];
  return { check: now, found: result === 'fault' ? fault : clear };
}

function renamed(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(renamed);
  if (typeof value !== 'object' || value === null) return value;
  return Object.fromEntries(
    Object.entries(value).map(([key, held]) => {
      const now = underWord(KEYS, key) ?? key;
      return [now, typeof held === 'string' ? renamedText(now, held) : renamed(held)];
    }),
  );
}

function renamedText(key: string, text: string): string {
  const word = underWord(underWord(VALUES, key) ?? {}, text) ?? text;
  return IDS.reduce((said, [of, from, to]) => (of === key ? said.replace(from, to) : said), word);
}
