import { aloneRescue, type Rescue } from '../src/circuit/index.js';
import type { DiagnosisEvidence } from '../src/diagnosis/index.js';
import type { Engine } from '../src/engine/index.js';
import {
  clampsSetAgain,
  beliefsWhileJoined,
  casualtyBatteries,
  copiesOf,
  modelOf,
  type Population,
  populationOf,
  startShare,
  type TryMade,
} from '../src/belief/index.js';
import { seededRandom, type Random } from '../src/quantities/index.js';
import { CAR, JOINED } from './fixtures.js';
import { crowdForTests } from './proof-share.js';
import type { Claim } from './reliability.js';
import {
  charged,
  clampsSet,
  GOOD_HELP,
  type Help,
  POOR_HELP,
  sizedFor,
  temperOf,
  turnKey,
} from './truth/rescue.js';
import { findingFor, technician } from './truth/technician.js';
import { between, KINDS, odds, oneOf, strand, type Stranded } from './truth/world.js';

const MACHINES = 600;

/** A rescue that was played: the claim before the first try, and where that failed the claim before the second. */
export interface Played {
  readonly first: Claim;
  readonly second: Claim | null;
}

const machineOf = (it: Stranded) => ({
  ...CAR,
  machineClass: it.machineClass,
  systemVolts: it.systemVolts,
  engine: it.engine as Engine,
  batteries: it.cells.map(() => ({ ...CAR.batteries[0]!, rating: it.rating })),
});

/** The rescue as the tool sees it: the kit by its label. */
function rescueWith(it: Stranded, help: Help, casualty: Rescue['casualty']): Rescue {
  const scale = it.systemVolts / 12;
  return {
    ...aloneRescue(casualty, it.tempC),
    source: { openVolts: help.volts * scale, ohms: help.ohms * scale },
    sourceOn: true,
    leads: { sectionMm2: help.sectionMm2, lengthM: help.lengthM, conductor: 'copper', contact: 'clean' },
    clamps: { ...JOINED, redCasualty: { kind: 'plus', battery: it.cells.length - 1 } },
  };
}

/** The alternator of a running donor, as its label says it. */
const alternatorOf = ({ systemVolts }: Stranded) => ({ volts: (14.2 * systemVolts) / 12, maxAmps: 30 });

/** Plays a rescue: what a crew reads first, a source, perhaps minutes of charge, the key; and once more where it failed. */
export function play(kind: 'called' | 'hard', random: Random): Played {
  const kinds = KINDS.filter(([, engine]) => engine !== null);
  let it = strand(random, oneOf(random, kinds));
  if (kind === 'hard') while (it.tempC > 4) it = strand(random, oneOf(random, kinds));
  const temper = temperOf(random);
  const { engine, ...machine } = machineOf(it);
  const { tempC, systemVolts } = it;
  const evidence = firstFindings(it, random);
  const restVolts = evidence.flatMap(({ check, found }) => (check === 'rest' ? [found as number] : []));
  const { beliefs } = casualtyBatteries({ ...machine, engine }, restVolts, tempC);
  const casualty = beliefs.map((belief) => modelOf(belief, tempC));
  const profile = { machineClass: it.machineClass, systemVolts, engine, rating: it.rating, tempC };
  const populationAfter = (tries: readonly TryMade[]): Population => {
    const seeded = seededRandom(3);
    const findings = { profile, repairs: [], earlier: null, evidence, tries };
    return populationOf(copiesOf(crowdForTests(profile), findings, seeded), MACHINES, seeded);
  };

  const helps = (kind === 'hard' ? POOR_HELP : GOOD_HELP).map((help) => sizedFor(it, help));
  const [help, other] = odds(random, 0.5) ? helps : [...helps].reverse();
  const minutes = odds(random, 0.4) ? Math.round(between(random, 3, 15)) : 0;
  const rescue = rescueWith(it, help!, casualty);
  const lending = { ...rescue, source: { ...rescue.source!, alternator: alternatorOf(it) } };
  const now = minutes > 0 ? beliefsWhileJoined(lending, beliefs, minutes)[minutes]! : beliefs;
  const moment = { rescue, beliefs: now };
  const claim = startShare(moment, engine, populationAfter([]));
  const after = minutes > 0 ? charged(it, help!, minutes, random) : it;
  const first = turnKey(after, temper, help!, clampsSet(random), random);
  if (first.started) return { first: { claim, isMet: true }, second: null };

  const lowestVolts = odds(random, 0.6) ? first.lowestVolts : null;
  const made = { at: 'first', repaired: 0, moment, outcome: first.outcome, lowestVolts };
  const learned = populationAfter([made]);
  const next = kind === 'hard' && odds(random, 0.7) ? sizedFor(it, GOOD_HELP[0]!) : other!;
  const again = { rescue: rescueWith(it, next, casualty), beliefs: now };
  const then = startShare(again, engine, clampsSetAgain(learned, seededRandom(4)));
  const { helpVolts, helpOhms } = temperOf(random);
  const second = turnKey(after, { ...temper, helpVolts, helpOhms }, next, clampsSet(random), random);
  return { first: { claim, isMet: false }, second: { claim: then, isMet: second.started } };
}

/** The findings that a crew has before it plans: rest volts, the driver's word, a look at the posts. */
function firstFindings(it: Stranded, random: Random): DiagnosisEvidence[] {
  const who = technician(random);
  const rest = it.cells.map((cell, i): DiagnosisEvidence => {
    const found = findingFor('rest', { ...it, cells: [cell] }, who, random)!;
    return { check: 'rest', found, ...(it.cells.length > 1 && { battery: i }) };
  });
  const looks = (['symptom', 'ask-left-on', 'look-joints'] as const).flatMap((check): DiagnosisEvidence[] => {
    const found = check === 'ask-left-on' && odds(random, 0.4) ? null : findingFor(check, it, who, random);
    return found === null ? [] : [{ check, found }];
  });
  return [...rest, ...looks];
}
