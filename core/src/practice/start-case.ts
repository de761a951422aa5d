import { ageingOfStrength } from '../battery/index.js';
import {
  type Cause,
  CAUSES,
  type DiagnosisProfile,
  drawHidden,
  type HiddenMachine,
  lookOf,
  REPLACE_CAUSES,
  SYMPTOMS,
  WORN_FROM,
} from '../diagnosis/index.js';
import { toolsOfKit } from '../job/index.js';
import { NOTHING_CONNECTED } from '../hookup/index.js';
import { MACHINE_CLASSES, type MachineClass } from '../machine/index.js';
import { outOfRange, pick, type Random, seededRandom } from '../quantities/index.js';
import { DEFAULT_RULES } from '../rules/index.js';
import { templateOf } from '../template/index.js';
import { causesOf, profileOf } from './case-profile.js';
import { answerOf } from './hidden-case.js';
import { PRACTICE_KIT } from './kit.js';
import { opaqueOf, textOf } from './opaque.js';
import { seedOf } from './seed.js';
import { type Rung, RUNG_IDS, type RungId, rungOf } from './rungs.js';
import { isSurelyBarred, mayBeBarred, type World } from './world.js';
import { MADE_COLD, nameOfWritten, readWrittenCode, type WrittenCase } from './written-case.js';

/** A case is drawn anew where it is none, so often at the most. */
const DRAWN_MOST = 40;

/** The beginnings of a case that somebody made: its machine, its fault and its cold. */
export interface MadeCase {
  readonly machineClass: MachineClass;
  readonly cause: Cause;
  readonly tempC: number;
}
/** The case that a code names: of a rung, or one that was made. */
export type CaseNamed = { readonly number: number } & (
  | { readonly rung: RungId; readonly made: null }
  | { readonly rung: null; readonly made: MadeCase; readonly written?: WrittenCase }
);

/** The code of a case: its rung and a number, so that nobody reads them in it. */
export const codeOfCase = (rung: RungId, number: number): string => opaqueOf(nameOfCase(rung, number));

const nameOfCase = (rung: RungId, number: number): string => `${rung}-${number}`;

/** The code of a case that somebody made: all of it is in the code, so that a link is enough to share it. */
export const codeOfMade = ({ machineClass, cause, tempC }: MadeCase, number: number): string =>
  opaqueOf(nameOfMade({ machineClass, cause, tempC }, number));

const nameOfMade = ({ machineClass, cause, tempC }: MadeCase, number: number): string =>
  `made~${machineClass}~${cause}~${tempC}~${number}`;

/**
 * The code of what a code names, with another number.
 *
 * @example readCaseCode(codeOf({ rung: 'order', made: null }, 7)).number // => 7
 */
export const codeOf = (named: CaseNamed, number: number): string => opaqueOf(nameOf({ ...named, number }));

/** Returns the name of a case in plain text: its draws follow from it, and no screen shows it. */
function nameOf({ number, ...named }: CaseNamed): string {
  if (!named.made) return nameOfCase(named.rung, number);
  return named.written ? nameOfWritten({ ...named.written, number }) : nameOfMade(named.made, number);
}

/**
 * Reads a code, or the name of a case in plain text; null for a text that is neither.
 *
 * @example readCaseCode('order-12').number // => 12
 */
export function readCaseCode(code: string): CaseNamed | null {
  const plain = textOf(code.trim()) ?? code.trim();
  const written = readWrittenCode(plain);
  if (written) return { rung: null, made: written, written, number: written.number };
  const text = plain.toLowerCase();
  const [, name, digits] = /^([a-z-]+)-(\d{1,6})$/.exec(text) ?? [];
  const rung = RUNG_IDS.find((id) => id === name);
  if (rung && digits) return { rung, made: null, number: Number(digits) };
  const [, of, why, cold, count] = /^made~([a-z-]+)~([a-z-]+)~(-?\d{1,2})~(\d{1,6})$/.exec(text) ?? [];
  const machineClass = MACHINE_CLASSES.find((id) => id === of);
  const cause = CAUSES.find((id) => id === why);
  const tempC = Number(cold);
  if (!machineClass || !cause || !count || outOfRange('', tempC, MADE_COLD) !== null) return null;
  if (!causesOf(machineClass).includes(cause)) return null;
  return { rung: null, made: { machineClass, cause, tempC }, number: Number(count) };
}

/**
 * The case of a code, before anything is done: the same to everybody.
 *
 * @throws RangeError for a code that is none
 * @example startCase('order-12').practice.machine.machineClass // => 'car'
 */
export function startCase(code: string): World {
  const read = readCaseCode(code);
  if (!read) throw new RangeError(`${code} is no code of a case`);
  const { rung, made } = read;
  const written = made && read.written;
  const name = nameOf(read);
  const random = seededRandom(seedOf(name));
  const { machineClass: of, cause, tempC } = made ?? drawnOf(rungOf(rung), random);
  const machine = { ...templateOf(of), maker: '' };
  const profile = profileOf(of, tempC);
  const { engine } = profile;
  const draw = () => drawHidden(cause, profile, random, written?.along);
  let hidden = draw();
  // A sound machine starts by itself, and no other does. One that may be ice is a case of its own rung.
  const isNone = (): boolean =>
    (engine !== null && (lookOf(hidden, profile, false) === 'starts') !== (cause === 'none')) ||
    (rung !== null && isUnclear(rung, hidden, profile));
  for (let i = 0; i < DRAWN_MOST && isNone(); i++) hidden = draw();
  const kit = written ? PRACTICE_KIT.filter(({ id }) => written.kit.includes(id)) : PRACTICE_KIT;
  const said = written?.symptom ?? String(answerOf('symptom', hidden, profile, random));
  return {
    practice: {
      code: name,
      rung,
      machine,
      donor: templateOf('van'),
      kit,
      tools: toolsOfKit(kit),
      told: written ? { title: written.title, says: written.says, answers: written.answers } : null,
      tempC,
      profile,
      rules: DEFAULT_RULES,
      said: SYMPTOMS.some((symptom) => symptom === said) ? said : SYMPTOMS[0],
      hidden,
    },
    hidden,
    minutes: 0,
    option: null,
    hookup: NOTHING_CONNECTED,
    runs: false,
    isOpen: false,
    broken: [],
    evidence: [{ check: 'symptom', found: said }],
    log: [],
    takenBack: [],
    hints: [],
    verdict: null,
  };
}

/** A battery with more strength than this is sound to any tester, a share of its rating. */
const SOUND_STRENGTH = 0.85;
/** Charge from which a worn battery can be proved so. */
const PROVABLE_SOC = 0.78;

/**
 * Returns true of a machine that no rung asks about, because nobody could prove what it is. No battery stands between sound and worn. Ice shows
 * to any careful reading, and a battery that may be ice is a case of its own rung. Where worn is told from flat, a worn one can be tested.
 */
function isUnclear(rung: RungId, hidden: HiddenMachine, profile: DiagnosisProfile): boolean {
  const practice = { profile, hidden };
  const isOnTheBorder = hidden.batteries.some(
    ({ ageing }) => ageing >= ageingOfStrength(SOUND_STRENGTH) && ageing < WORN_FROM,
  );
  if (isOnTheBorder && !REPLACE_CAUSES.includes(hidden.cause)) return true;
  if (hidden.cause === 'none' && hidden.holds.includes('worn')) return true;
  if (rung !== 'stop') {
    if (mayBeBarred({ practice })) return true;
    const isWorn = rung === 'worn-or-flat' && hidden.cause === 'worn';
    return isWorn && hidden.batteries.some(({ soc }) => soc < PROVABLE_SOC);
  }
  return hidden.holds.includes('frozen') && !isSurelyBarred({ practice });
}

/** The beginnings of a case of a rung. */
function drawnOf({ classes, causes, cold }: Rung, random: Random): MadeCase {
  const machineClass = pick(random, classes);
  const tempC = Math.round(cold[0] + (cold[1] - cold[0]) * random());
  // Ice is no prior of its own: any machine that stood flat in the frost has it.
  const can: readonly Cause[] = [...causesOf(machineClass), 'frozen'];
  const { rating, engine } = profileOf(machineClass, tempC);
  // Only a hydrometer proves a dead cell: where none reaches the acid, no verdict on it could be proved.
  const isPossible = (cause: Cause): boolean =>
    cause === 'none'
      ? engine !== null
      : can.includes(cause) && (cause !== 'dead-cell' || rating.chemistry === 'flooded');
  return { machineClass, tempC, cause: pick(random, causes.filter(isPossible)) };
}
