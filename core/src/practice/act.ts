import { afterJoined } from '../charging/index.js';
import { type AttemptOutcome, type CrankPoint, crankPoint, wakePoint } from '../crank/index.js';
import {
  type CheckId,
  checkOf,
  type CrankLook,
  cranksOf,
  type DiagnosisEvidence,
  isWeighed,
  lampVoltsAt,
  lookOfPoint,
  postsAtRest,
  oneBattery,
} from '../diagnosis/index.js';
import { defaultStarter } from '../engine/index.js';
import {
  actByHand,
  anyClampOn,
  clampsOn,
  type HandAction,
  type Hazard,
  hazardsAsIs,
  newHazard,
  NOTHING_CONNECTED,
  rescueOf,
} from '../hookup/index.js';
import {
  isSourceClamp,
  type Rescue,
  rescueCircuit,
  solveDc,
  terminalNode,
  voltsAcross,
} from '../circuit/index.js';
import { HAND_MINUTES, sourceOptions } from '../plan/index.js';
import { startsByWaking } from '../machine/index.js';
import { seededRandom } from '../quantities/index.js';
import { answerOf } from './hidden-case.js';
import { brokenBy, COOKED_FROM_C, withBroken, withCooked } from './breaks.js';
import { type ReadByHand, readAmps, readGravity, readVolts, rescueNow } from './read-by-hand.js';
import { seedOf } from './seed.js';
import { startCase } from './start-case.js';
import {
  type Happened,
  type KeyOutcome,
  type PracticeAction,
  trueBatteries,
  trueScene,
  type World,
} from './world.js';

/** A clamp set, a switch thrown: hands need about this long, minutes. */
const HAND_ACTION_MINUTES = 0.4;
/** Something is carried over from the van, minutes. */
const FETCH_MINUTES = 1;
/** Name of a try that the key was turned for. */
const TRY_OF: Readonly<Record<CrankLook, AttemptOutcome>> = {
  starts: 'started',
  'brisk-no-fire': 'brisk-no-fire',
  slow: 'slow',
  'rapid-click': 'clicks',
  'one-click': 'clicks',
  silence: 'nothing',
};

/**
 * Applies an action to the world: pure: the same case and the same actions give the same state. So a run is its list of actions.
 * Nothing is forbidden; what it does to hands and metal is solved on the circuit as it truly is.
 *
 * @throws RangeError for a check, source or action that the case does not have, and after the verdict
 */
export function act(world: World, action: PracticeAction): World {
  if (world.verdict) throw new RangeError('the case has ended');
  const over = world.isOpen ? [] : overBattery(world, action);
  const after = acted(world, action);
  return over.length > 0 ? opened(after, over) : after;
}

function acted(world: World, action: PracticeAction): World {
  switch (action.kind) {
    case 'check':
      return checked(world, action);
    case 'probe':
      return readByHand(world, action, readVolts(world, action, randomOf(world)));
    case 'amps':
      return readByHand(world, action, readAmps(world, action, randomOf(world)));
    case 'gravity':
      return readByHand(world, action, readGravity(world, action, randomOf(world)));
    case 'fetch': {
      const option = optionsOf(world).find(({ id }) => id === action.optionId);
      if (!option) throw new RangeError(`nothing in this van is ${action.optionId}`);
      const hazards = tornOff(world);
      return broke(
        { ...world, option, hookup: NOTHING_CONNECTED },
        { action, minutes: FETCH_MINUTES, hazards },
      );
    }
    case 'hands': {
      const hookup = actByHand(world.hookup, action.action, world.practice.machine);
      const hazards = hazardsOfHands(world, action.action);
      return broke({ ...world, hookup }, { action, minutes: HAND_ACTION_MINUTES, hazards });
    }
    case 'wait':
      return waited(world, action);
    case 'key':
      return turned(world, action);
    case 'back': {
      const last = world.log.at(-1);
      if (!last) return world;
      const before = replay(
        world.practice.code,
        world.log.slice(0, -1).map(({ action: a }) => a),
      );
      // The minutes are gone all the same.
      return { ...before, minutes: world.minutes, hints: world.hints, takenBack: [...world.takenBack, last] };
    }
    case 'hint':
      return { ...world, hints: [...world.hints, action.level] };
    case 'verdict': {
      const { verdict, suspect } = action;
      return logged({ ...world, verdict: { verdict, suspect } }, { action, minutes: 0, hazards: [] });
    }
    default:
      // An action from elsewhere may be anything.
      throw new RangeError('nobody can do that');
  }
}

/** The cover of the battery, where this action reaches for it; null where it does not. */
function overBattery({ practice: { machine } }: World, action: PracticeAction): readonly string[] {
  const own = machine.points.filter(({ kind }) => kind.startsWith('battery-'));
  const reaches = reachedBy(action);
  const isReached = reaches === 'battery' || own.some(({ id }) => reaches.includes(id));
  return isReached ? (own[0]?.steps ?? []) : [];
}

/** Points of the machine that an action reaches for, or its battery whatever its points are. */
function reachedBy(action: PracticeAction): 'battery' | readonly string[] {
  switch (action.kind) {
    case 'check': {
      const { isOfBattery = false, needs } = checkOf(action.check);
      const isRead = needs !== null && needs !== 'source';
      return isOfBattery || isRead || SEEN_AT_BATTERY.includes(action.check) ? 'battery' : [];
    }
    case 'probe':
      return [action.red, action.black];
    case 'gravity':
      return 'battery';
    case 'amps':
      return action.around === 'own-cable' ? 'battery' : [];
    case 'hands': {
      const { action: hand } = action;
      if (hand.kind === 'attach') return isSourceClamp(hand.clamp) ? [] : [hand.pointId];
      return hand.kind === 'bridge' || hand.kind === 'loosen' ? [hand.pointId] : [];
    }
    default:
      return [];
  }
}
/** Looks at the battery itself. */
const SEEN_AT_BATTERY: readonly CheckId[] = ['look-joints', 'look-date', 'case'];

/** The same with what lay over the battery taken off first, in its minutes. */
function opened(after: World, over: readonly string[]): World {
  const minutes = over.length * HAND_ACTION_MINUTES;
  const last = after.log.at(-1)!;
  return {
    ...after,
    isOpen: true,
    minutes: after.minutes + minutes,
    log: [...after.log.slice(0, -1), { ...last, minutes: last.minutes + minutes, opened: over }],
  };
}

/** A run from its actions. */
export const replay = (code: string, actions: readonly PracticeAction[]): World =>
  actions.reduce(act, startCase(code));

/** Every way that the van's kit can be joined to this machine, fit or not. */
export function optionsOf(world: World) {
  const { machine, kit, tempC, rules } = world.practice;
  return sourceOptions(machine, kit, trueBatteries(world), tempC, { ...rules, hobbyLithium: 'allowed' });
}

type Came = Omit<Happened, 'atMinutes'>;

const logged = (world: World, came: Came): World => ({
  ...world,
  minutes: world.minutes + came.minutes,
  log: [...world.log, { ...came, atMinutes: world.minutes }],
});

/** The same where what its hazards break is broken, and stays so. */
function broke(world: World, came: Came, parts = brokenBy(came.hazards, world.broken)): World {
  if (parts.length === 0) return logged(world, came);
  const { profile } = world.practice;
  const hookup = parts.includes('source')
    ? actByHand(world.hookup, { kind: 'pack', on: false }, world.practice.machine)
    : world.hookup;
  return logged(
    {
      ...world,
      hookup,
      hidden: withBroken(world.hidden, parts, profile),
      // A source that tripped is switched on again; what is broken stays broken.
      broken: [...new Set([...world.broken, ...parts.filter((part) => part !== 'source')])],
    },
    { ...came, broke: parts },
  );
}

/** Draws of this moment: the same whenever the same was done before it. */
const randomOf = ({ practice: { code }, log, takenBack }: World) =>
  seededRandom(seedOf(`${code} ${log.length} ${takenBack.length}`));

function checked(world: World, action: Extract<PracticeAction, { kind: 'check' }>): World {
  const { practice, evidence } = world;
  const { check: id, battery } = action;
  const check = checkOf(id);
  if (id === 'case')
    return logged(world, {
      action,
      minutes: check.minutes,
      found: isHurt(world) ? 'fault' : 'clear',
      hazards: [],
    });
  if (!isWeighed(check)) throw new RangeError(`${id} is a part of another check`);
  if (check.fits && !check.fits(practice.profile)) throw new RangeError(`${id} is nothing for this machine`);
  const seen = battery === undefined ? world.hidden : oneBattery(world.hidden, battery);
  const profile =
    battery === undefined ? practice.profile : { ...practice.profile, systemVolts: 12 as const };
  const found = practice.told?.answers[id] ?? answerOf(id, seen, profile, randomOf(world));
  const piece = { check: id, found, ...(battery !== undefined && { battery }) };
  return logged(
    { ...world, evidence: withPiece(evidence, piece) },
    { action, minutes: check.minutes, found, hazards: [] },
  );
}

/** Ice bulges a case more often than not, and a battery that was cooked is swollen. */
const isHurt = ({ practice: { code, hidden }, broken }: World): boolean =>
  broken.includes('battery') ||
  (hidden.holds.includes('frozen') && seededRandom(seedOf(`${code} case`))() < BULGES_SHARE);
const BULGES_SHARE = 0.6;

/** A finding that is taken again replaces the earlier one. */
const withPiece = (evidence: World['evidence'], piece: DiagnosisEvidence): World['evidence'] => [
  ...evidence.filter((e) => e.check !== piece.check || e.battery !== piece.battery),
  piece,
];

/** A reading of an instrument that hands hold, and what it tells where it was held as a check asks. */
function readByHand(world: World, action: PracticeAction, { shown, minutes, piece }: ReadByHand): World {
  const evidence = piece ? withPiece(world.evidence, piece) : world.evidence;
  return logged({ ...world, evidence }, { action, minutes, ...shown, hazards: [] });
}

function hazardsOfHands(world: World, action: HandAction): Hazard[] {
  const scene = trueScene(world);
  return scene ? hazardsAsIs(scene, world.hookup, action, world.practice.rules) : [];
}

/** Another source is fetched while clamps are on: they come off as they went on, last first, with all that is on left on. */
function tornOff(world: World): Hazard[] {
  let torn = world;
  return [...clampsOn(world.hookup)].reverse().flatMap((clamp) => {
    const action = { kind: 'detach', clamp } as const;
    const hazards = hazardsOfHands(torn, action);
    torn = { ...torn, hookup: actByHand(torn.hookup, action, world.practice.machine) };
    return hazards;
  });
}

/** Minutes of what is joined: the batteries take charge, and one that is driven too hard is cooked. */
function waited(world: World, action: Extract<PracticeAction, { kind: 'wait' }>): World {
  const { minutes } = action;
  const scene = trueScene(world);
  if (!scene || minutes <= 0 || !anyClampOn(world.hookup))
    return logged(world, { action, minutes, hazards: [] });
  const { profile } = world.practice;
  const rescue = rescueOf(scene, world.hookup);
  const whole = Math.round(minutes);
  const batteries = world.hidden.batteries.map((state) => ({ rating: profile.rating, state }));
  const { states: charged, warmedK } = afterJoined(rescue, batteries, whole);
  // Its debt below the flat line is paid or shown anew: the old figure must not stay beside a charge above it.
  const states = world.hidden.batteries.map(({ overDischargedVolts: _owed, ...state }, i) => ({
    ...state,
    ...charged[i]!,
    tempC: state.tempC + warmedK[i]!,
  }));
  const hidden = { ...world.hidden, batteries: states };
  const cooked = states.map(
    ({ tempC }, i) => tempC >= COOKED_FROM_C && batteries[i]!.state.tempC < COOKED_FROM_C,
  );
  if (!cooked.includes(true)) {
    const warm = { ...world, hidden: { ...hidden, ...cranksOf(hidden, profile) } };
    return logged(warm, { action, minutes, hazards: [] });
  }
  const worst = cooked.indexOf(true);
  const solution = solveDc(rescueCircuit(rescue));
  const hazard = newHazard(
    'over-charges-battery',
    'severe',
    -(solution.amps.get(`casualty.battery${worst}`) ?? 0),
  );
  return broke(
    { ...world, hidden: withCooked(hidden, cooked, profile) },
    { action, minutes, hazards: [hazard] },
    ['battery'],
  );
}

function turned(world: World, action: Extract<PracticeAction, { kind: 'key' }>): World {
  const { practice, evidence } = world;
  const scene = trueScene(world);
  const rescue = rescueNow(world);
  const helped = lends(rescue);
  const hazards = scene && anyClampOn(world.hookup) ? hazardsOfHands(world, { kind: 'crank' }) : [];
  const { outcome, point } = startsByWaking(practice.machine)
    ? woken(world, rescue)
    : cranked(world, rescue, helped);
  const found = foundOf(outcome);
  const piece = { check: helped ? 'with-help' : 'try-alone', found } as const;
  // A machine that wakes is not tried alone: what it does by itself is what the driver said.
  const tells = helped || !startsByWaking(practice.machine);
  const lampVolts = lampsOf(world, rescue, point);
  return broke(
    {
      ...world,
      runs: world.runs || outcome === 'starts' || outcome === 'wakes',
      evidence: tells ? withPiece(evidence, piece) : evidence,
    },
    { action, minutes: HAND_MINUTES.crank, found, hazards, key: { outcome, point, helped, lampVolts } },
  );
}

/** Volts per 12 V at the lamps while the key is held: behind the joints of the posts, with what the starter draws. */
function lampsOf({ hidden, practice }: World, rescue: Rescue, point: CrankPoint | null): number {
  if (hidden.open) return 0;
  const { systemVolts } = practice.profile;
  if (point) return lampVoltsAt(hidden, point, practice.profile);
  const solution = solveDc(rescueCircuit(rescue));
  const last = practice.machine.batteries.length - 1;
  const plus = terminalNode({ kind: 'plus', battery: last });
  return (voltsAcross(solution, plus, terminalNode({ kind: 'body' })) / systemVolts) * 12;
}

function foundOf(outcome: KeyOutcome): AttemptOutcome {
  if (outcome === 'wakes') return 'started';
  return outcome === 'stays-asleep' ? 'clicks' : TRY_OF[outcome];
}

/** Both leads of a source that is on lie between it and the casualty. */
function lends({ source, sourceOn, clamps }: Rescue): boolean {
  return source !== null && sourceOn && Object.values(clamps).every((end) => end !== null);
}

function cranked(
  world: World,
  rescue: Rescue,
  helped: boolean,
): { outcome: KeyOutcome; point: CrankPoint | null } {
  const { hidden } = world;
  const { profile } = world.practice;
  const engine = profile.engine!;
  const isStill =
    hidden.open || hidden.starter === 'dead' || hidden.held === 'starter' || world.hookup.negativeOff;
  if (isStill) {
    const dead = world.hookup.negativeOff && !helped ? { ...hidden, open: true } : hidden;
    return {
      outcome: lookOfPoint(dead, null, profile.systemVolts, postsAtRest(hidden, profile, helped)),
      point: null,
    };
  }
  const usual = defaultStarter(engine);
  // The source as it was ranked: a bank is met in the middle of its crank. So is a battery that the regulator held up at its own volts.
  const lent = world.option?.source;
  const source =
    rescue.source && lent ? { ...rescue.source, openVolts: lent.openVolts, ohms: lent.ohms } : rescue.source;
  const point = crankPoint({ ...rescue, source }, engine, {
    ...usual,
    efficiency: usual.efficiency * hidden.torqueShare,
  });
  const restVolts = postsAtRest(hidden, profile, helped);
  return { outcome: lookOfPoint(hidden, point, profile.systemVolts, restVolts), point };
}

function woken(world: World, rescue: Rescue): { outcome: KeyOutcome; point: null } {
  const { hidden, practice } = world;
  const { wakeAmps, wakeMinVolts } = practice.rules;
  const isKept =
    world.broken.includes('control-units') ||
    hidden.open ||
    hidden.cause === 'traction-flat' ||
    hidden.cause === 'charge-point';
  const wakes = !isKept && wakePoint(rescue, wakeAmps).postVolts >= wakeMinVolts;
  return { outcome: wakes ? 'wakes' : 'stays-asleep', point: null };
}
