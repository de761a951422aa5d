import type { ClampId } from '@voltrek/core/circuit';
import { isRedClamp, isSourceClamp } from '@voltrek/core/circuit';
import { type HandAction, SPARE_POSTS } from '@voltrek/core/hookup';
import type { Machine } from '@voltrek/core/machine';
import type {
  AmpsAround,
  Breakable,
  Failing,
  Happened,
  KeyOutcome,
  PracticeAction,
  PracticeCase,
  RungId,
} from '@voltrek/core/practice';
import { startsByWaking } from '@voltrek/core/machine';
import type { VerdictKind } from '@voltrek/core/verdict';
import { FINDING_NAMES, foundWords } from './diagnosis-words';
import { volts } from './figures';
import { confirmWords } from './earth-words';
import { VERDICT_WORDS } from './verdict-words';
import { verdictTitle } from './verdict-title';
import { CIRCUMSTANCE_WORDS } from './words';
import { messagesOf } from './messages-of';

/** The name of each rung, and its aim. */
export const RUNG_WORDS: Record<RungId, { readonly name: string; readonly trains: string }> =
  messagesOf('rung');

/** Of a case that somebody made. */
export const MADE_WORDS = messagesOf('made');

export const FAILING_WORDS: Record<Failing, string> = messagesOf('failing');

const KEY_WORDS: Record<KeyOutcome, string> = messagesOf('key');

/** The lead that a clamp meter is closed around. */
export const AROUND_WORDS: Record<AmpsAround, string> = messagesOf('around');

/** The part that a slip broke. */
export const BROKE_WORDS: Record<Breakable, string> = messagesOf('broke');

/** Returns the value of an instrument in hand; empty where none was. */
export function readWords({ volts: shown, amps, gravity }: Happened): string {
  if (shown !== undefined) return volts(shown);
  if (amps !== undefined) return `${amps.toFixed(2)} A`;
  return gravity === undefined ? '' : gravity.toFixed(3);
}

export const clampWords = (clamp: ClampId): string =>
  `${isRedClamp(clamp) ? 'Red' : 'Black'}, ${isSourceClamp(clamp) ? 'source end' : 'casualty end'}`;

/** Returns the name of a point, on the machine or on the source. */
export function placeName(machine: Machine | null, pointId: string): string {
  if (pointId === SPARE_POSTS.plus) return 'spare battery +';
  if (pointId === SPARE_POSTS.minus) return 'spare battery -';
  return machine?.points.find(({ id }) => id === pointId)?.label ?? 'a place that is not known';
}

function handsWords(
  action: Exclude<HandAction, { kind: 'crank' }>,
  { machine, donor }: PracticeCase,
): string {
  switch (action.kind) {
    case 'attach':
      return `${clampWords(action.clamp)}: on ${placeName(isSourceClamp(action.clamp) ? donor : machine, action.pointId)}`;
    case 'detach':
      return `${clampWords(action.clamp)}: off`;
    case 'donor-engine':
      return action.running ? 'Donor started' : 'Donor stopped';
    case 'pack':
      return action.on ? 'Source switched on' : 'Source switched off';
    case 'plug':
      return action.in ? 'Plugged in' : 'Unplugged';
    case 'confirm':
      return confirmWords(action.what, machine).title;
    case 'circumstance':
      return `${CIRCUMSTANCE_WORDS[action.what]}${action.on ? '' : ', no longer'}`;
    case 'touch':
      return 'Two clamps touched';
    case 'lay':
      return `${clampWords(action.clamp)}: laid on bare metal`;
    case 'bridge':
      return `Spanner from ${placeName(machine, action.pointId)} to the body`;
    case 'loosen':
      return `Its own clamp off ${placeName(machine, action.pointId)}`;
  }
}

/** An action of a case, as it is told in the list of what was done. */
export function practiceActionWords(action: PracticeAction, practice: PracticeCase): string {
  switch (action.kind) {
    case 'check':
      return `${FINDING_NAMES[action.check]}${action.battery === undefined ? '' : `, battery ${action.battery + 1}`}`;
    case 'probe':
      return `Meter: red on ${placeName(practice.machine, action.red)}, black on ${placeName(practice.machine, action.black)}`;
    case 'amps':
      return `Clamp meter: around ${AROUND_WORDS[action.around]}`;
    case 'gravity':
      return `Hydrometer: ${practice.machine.batteries.length > 1 ? `battery ${action.battery + 1}, ` : ''}cell ${action.cell + 1}`;
    case 'fetch':
      return `Fetched: ${optionWords(action.optionId, practice)}`;
    case 'hands':
      return handsWords(action.action, practice);
    case 'wait':
      return `Waited ${action.minutes} min`;
    case 'key':
      return startsByWaking(practice.machine) ? 'Asked to wake' : 'Key turned';
    case 'back':
      return 'Taken back';
    case 'hint':
      return 'Hint';
    case 'verdict':
      return `Verdict: ${verdictTitle(action.verdict, action.suspect)}`;
  }
}

/** A way to join the kit, by the names of its pieces. */
export function optionWords(optionId: string, { kit }: PracticeCase): string {
  const [whole = '', across] = optionId.split('#');
  const [source = '', leads] = whole.split('+');
  const [sourceId = '', output] = source.split('@');
  const name = (id: string): string => kit.find((item) => item.id === id)?.name ?? id;
  const parts = [name(sourceId), ...(output === '24' ? ['at 24 V'] : []), ...(leads ? [name(leads)] : [])];
  const one = across?.startsWith('battery')
    ? [`across battery ${Number(across.slice('battery'.length)) + 1} only`]
    : [];
  return [...parts, ...one].join(', ');
}

/** Returns the outcome of an action; empty where there was none. */
export function cameWords(happened: Happened): string {
  const { action, found, key, broke = [] } = happened;
  const came = whatCame();
  return [came && broke.length > 0 ? `${came}.` : came, ...broke.map((part) => BROKE_WORDS[part])]
    .filter(Boolean)
    .join(' ');

  function whatCame(): string {
    if (key)
      return `${KEY_WORDS[key.outcome]}${key.point ? `, ${volts(key.point.postVolts)} at the posts, ${key.point.starterAmps.toFixed(0)} A` : ''}`;
    if (action.kind === 'check' && found !== undefined) return foundWords(action.check, found);
    return readWords(happened);
  }
}

/** Verdicts that are right here, told as one. */
export const rightWords = (right: readonly VerdictKind[]): string =>
  right.map((kind) => VERDICT_WORDS[kind].name).join(', or ');
