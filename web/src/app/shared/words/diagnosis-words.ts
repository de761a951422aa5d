import type { Machine } from '@voltrek/core/machine';
import type { BatteryCondition, Cause, Found, CheckId, Symptom } from '@voltrek/core/diagnosis';
import type { Doubt } from '@voltrek/core/job';
import type { Ground } from '@voltrek/core/verdict';
import { percent, volts } from './figures';
import { SYMPTOM_WORDS } from './words';
import { messagesOf } from './messages-of';

/** How one battery of a string stands. */
export const CONDITION_WORDS: Record<BatteryCondition, string> = messagesOf('condition');

/** Causes, as they are said on screen. */
export const CAUSE_WORDS: Record<Cause, string> = messagesOf('cause');

/** A check as it is asked of this machine: a motorcycle charges at more revs than a car. */
export const askWords = (check: CheckId, { machineClass }: Pick<Machine, 'machineClass'>): string =>
  machineClass === 'motorcycle' && check === 'charging-loaded'
    ? messagesOf('checkOfMotorcycle')['charging-loaded']
    : CHECK_WORDS[check].ask;

/** Each check as an order, with its outcomes where it is answered by a tap; a unit where it is answered by a figure. */
export const CHECK_WORDS: Record<
  CheckId,
  { readonly ask: string; readonly outcomes?: Readonly<Record<string, string>> }
> = messagesOf('check');

/** The outcomes that a check is answered with by a tap, each by its name; none where it is answered by a figure. */
export const outcomesNamed = (check: CheckId): { readonly found: string; readonly name: string }[] =>
  Object.entries(CHECK_WORDS[check].outcomes ?? {}).map(([found, name]) => ({ found, name }));

/** The finding of a check, by name, for a ledger and a sheet. */
export const FINDING_NAMES: Record<CheckId, string> = messagesOf('findingNames');

/** The unit of a check that is answered by a figure. */
export const CHECK_UNITS: Partial<Record<CheckId, string>> = {
  'key-on': 'V',
  recovery: 'V',
  'joint-plus': 'V',
  'joint-minus': 'V',
  'starter-stud': 'V',
  conductance: '0-1',
  'load-test': 'V',
  ripple: 'V',
  drain: 'A',
};

const TRY_WORDS: Readonly<Record<string, string>> = messagesOf('try');

/** A finding as it is said: its outcome, or its figure with a unit. */
export function foundWords(check: CheckId, found: Found): string {
  if (typeof found === 'number') {
    if (check === 'conductance') return percent(found);
    if (check === 'drain') return `${Math.round(found * 1000)} mA`;
    const isDifference = check === 'crank' || check === 'load-test' || check === 'promise';
    return `${isDifference && found > 0 ? '+' : ''}${volts(found)}`;
  }
  if (check === 'symptom') return SYMPTOM_WORDS[found as Symptom];
  if (check === 'with-help') return TRY_WORDS[found] ?? found;
  return CHECK_WORDS[check].outcomes?.[found] ?? found;
}

export const GROUND_WORDS: Record<Ground, string> = messagesOf('ground');

const PUSH = messagesOf('push');

/** Doublings of the odds from which a finding is said to speak clearly, and strongly. */
const CLEAR_BITS = 1;
const STRONG_BITS = 3;

/** The way a finding speaks, and its strength: in words, so that it cannot be taken for a reading. */
export function pushWords(bits: number): string {
  const size = Math.abs(bits);
  const how = PUSH[size >= STRONG_BITS ? 'strongly' : size >= CLEAR_BITS ? 'clearly' : 'a-little'];
  return bits < 0 ? PUSH.against({ how }) : PUSH.for({ how });
}

export const DOUBT_WORDS: Record<Doubt, string> = messagesOf('doubt');

/** Whether these shares add up to more than a whole: then two of the causes may be there at once, and the screen says so. */
export const mayOccurTogether = (causes: readonly { readonly share: number }[]): boolean =>
  causes.reduce((sum, { share }) => sum + share, 0) > 1.005;
