import { isSourceClamp } from '@voltrek/core/circuit';
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
  SkillId,
  World,
} from '@voltrek/core/practice';
import { startsByWaking } from '@voltrek/core/machine';
import type { VerdictKind } from '@voltrek/core/verdict';
import { clampWords } from './clamp-words';
import { FINDING_NAMES, foundWords } from './diagnosis-words';
import { volts } from './figures';
import { confirmWords } from './earth-words';
import { VERDICT_WORDS } from './verdict-words';
import { verdictTitle } from './verdict-title';
import { CIRCUMSTANCE_WORDS } from './words';
import { messagesOf } from './messages-of';
import { inWords } from './template-words';
import { fixed } from './numbers';

/** The name of each rung, and its aim. */
export const RUNG_WORDS: Record<RungId, { readonly name: string; readonly trains: string }> =
  messagesOf('rung');

/** Of a case that somebody made. */
export const MADE_WORDS = messagesOf('made');

export const SKILL_WORDS: Record<SkillId, string> = messagesOf('skill');

export const FAILING_WORDS: Record<Failing, string> = messagesOf('failing');

const KEY_WORDS: Record<KeyOutcome, string> = messagesOf('key');

/** The lead that a clamp meter is closed around. */
export const AROUND_WORDS: Record<AmpsAround, string> = messagesOf('around');

/** The part that a slip broke. */
export const BROKE_WORDS: Record<Breakable, string> = messagesOf('broke');

const HANDS = messagesOf('hands');
const ACT = messagesOf('practiceAction');

/** Returns the value of an instrument in hand; empty where none was. */
export function readWords({ volts: shown, amps, gravity }: Happened): string {
  if (shown !== undefined) return volts(shown);
  if (amps !== undefined) return `${fixed(amps, 2)} A`;
  return gravity === undefined ? '' : fixed(gravity, 3);
}

/** Returns the name of a point, on the machine or on the source. */
export function placeName(machine: Machine | null, pointId: string): string {
  if (pointId === SPARE_POSTS.plus) return HANDS.sparePlus;
  if (pointId === SPARE_POSTS.minus) return HANDS.spareMinus;
  return machine?.points.find(({ id }) => id === pointId)?.label ?? HANDS.unknownPlace;
}

function handsWords(
  action: Exclude<HandAction, { kind: 'crank' }>,
  { machine, donor }: PracticeCase,
): string {
  switch (action.kind) {
    case 'attach': {
      const place = placeName(isSourceClamp(action.clamp) ? donor : machine, action.pointId);
      return HANDS.attach({ clamp: clampWords(action.clamp), place });
    }
    case 'detach':
      return HANDS.detach({ clamp: clampWords(action.clamp) });
    case 'donor-engine':
      return action.running ? HANDS.donorStarted : HANDS.donorStopped;
    case 'pack':
      return action.on ? HANDS.sourceOn : HANDS.sourceOff;
    case 'plug':
      return action.in ? HANDS.pluggedIn : HANDS.unplugged;
    case 'confirm':
      return confirmWords(action.what, machine).title;
    case 'circumstance': {
      const what = CIRCUMSTANCE_WORDS[action.what];
      return action.on ? what : HANDS.noLonger({ what });
    }
    case 'touch':
      return HANDS.touch;
    case 'lay':
      return HANDS.lay({ clamp: clampWords(action.clamp) });
    case 'bridge':
      return HANDS.bridge({ place: placeName(machine, action.pointId) });
    case 'loosen':
      return HANDS.loosen({ place: placeName(machine, action.pointId) });
  }
}

/** An action of a case, as the list of what was done shows it. */
export function practiceActionWords(action: PracticeAction, practice: PracticeCase): string {
  const { machine } = practice;
  switch (action.kind) {
    case 'check': {
      const check = FINDING_NAMES[action.check];
      return action.battery === undefined ? check : ACT.checkOf({ check, number: action.battery + 1 });
    }
    case 'probe':
      return ACT.probe({ red: placeName(machine, action.red), black: placeName(machine, action.black) });
    case 'amps':
      return ACT.amps({ around: AROUND_WORDS[action.around] });
    case 'gravity': {
      const cell = action.cell + 1;
      return machine.batteries.length > 1
        ? ACT.gravityOf({ number: action.battery + 1, cell })
        : ACT.gravity({ cell });
    }
    case 'fetch':
      return ACT.fetch({ name: optionWords(action.optionId, practice) });
    case 'hands':
      return handsWords(action.action, practice);
    case 'wait':
      return ACT.wait({ minutes: action.minutes });
    case 'key':
      return startsByWaking(machine) ? ACT.wake : ACT.key;
    case 'back':
      return ACT.back;
    case 'hint':
      return ACT.hint;
    case 'verdict':
      return ACT.verdict({ verdict: verdictTitle(action.verdict, action.suspect) });
  }
}

/** A way to join the kit, by the names of its pieces. */
export function optionWords(optionId: string, { kit }: PracticeCase): string {
  const [whole = '', across] = optionId.split('#');
  const [source = '', leads] = whole.split('+');
  const [sourceId = '', output] = source.split('@');
  const name = (id: string): string => kit.find((item) => item.id === id)?.name ?? id;
  const parts = [name(sourceId), ...(output === '24' ? [ACT.at24] : []), ...(leads ? [name(leads)] : [])];
  const one = across?.startsWith('battery')
    ? [ACT.acrossOnly({ number: Number(across.slice('battery'.length)) + 1 })]
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
    if (key) {
      const what = KEY_WORDS[key.outcome];
      if (!key.point) return what;
      const { postVolts, starterAmps } = key.point;
      return ACT.atPosts({ what, volts: volts(postVolts), amps: fixed(starterAmps) });
    }
    if (action.kind === 'check' && found !== undefined) return foundWords(action.check, found);
    return readWords(happened);
  }
}

/** Verdicts that are right here, as alternatives. */
export const rightWords = (right: readonly VerdictKind[]): string =>
  right.map((kind) => VERDICT_WORDS[kind].name).reduce((first, second) => ACT.or({ first, second }));

/** Returns a case with its machines in the language on screen. */
export const spoken = (world: World): World => {
  const { machine, donor } = world.practice;
  return {
    ...world,
    practice: { ...world.practice, machine: inWords(machine), donor: inWords(donor) },
  };
};
