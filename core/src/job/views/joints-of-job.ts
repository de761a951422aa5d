import { aloneRescue, type BadJoints } from '../../circuit/index.js';
import { crankPoint } from '../../crank/index.js';
import { type CheckId, LAMPS_AMPS, usualBadJointOhms, WORTH_CLEANING_VOLTS } from '../../diagnosis/index.js';
import type { Machine } from '../../machine/index.js';
import type { CasualtyBatteries } from '../../belief/index.js';
import { bisect, underWord } from '../../quantities/index.js';
import type { Job } from '../job.js';

const JOINT_CHECKS: readonly CheckId[] = ['joint-plus', 'joint-minus', 'look-joints'];
/** The volts of an outcome that was only tapped, V: the middle of its band. */
const DROP_OF_WORD: Readonly<Record<string, number>> = {
  good: 0.1,
  'worth-cleaning': 0.35,
  bad: 1,
  'very-bad': 3,
};
/** No joint that still carries anything resists more, ohms. */
const MOST_OHMS = 2;

/** The findings of a job on its machine's own joints. */
export function jointFindings({ findings, figures }: Pick<Job, 'findings' | 'figures'>) {
  const isJoint = (check: CheckId): boolean => JOINT_CHECKS.includes(check);
  return {
    findings: Object.fromEntries(
      Object.entries(findings).filter(([check]) => isJoint(check as CheckId)),
    ) as Job['findings'],
    figures: figures.filter(({ check }) => isJoint(check)),
  };
}

/**
 * Returns the resistance of the casualty's own joints, as far as a check found one bad: from the volts lost across it and the amps that
 * flowed. Where it was only seen, the usual loss of such a joint. Null while nothing speaks against them.
 */
export function jointsOfJob(
  { findings }: Pick<Job, 'findings'>,
  machine: Machine,
  batteries: CasualtyBatteries,
  tempC: number,
): BadJoints | null {
  const looked = findings['look-joints'];
  const isSeenBad = looked === 'deposits' || looked === 'turns-by-hand' || looked === 'rust';
  const drops = { plus: findings['joint-plus'], minus: findings['joint-minus'] };
  const measured = (side: 'plus' | 'minus'): number | null => {
    const found = drops[side];
    if (found === undefined) return null;
    const drop = typeof found === 'number' ? found : (underWord(DROP_OF_WORD, found) ?? 0);
    return drop < WORTH_CLEANING_VOLTS ? 0 : ohmsFromDrop(drop, side, machine, batteries, tempC);
  };
  const [plus, minus] = [measured('plus'), measured('minus')];
  // Seen to be bad, and neither side measured: either may be the one. The plus side is behind every source that clamps a post.
  const seen = isSeenBad && plus === null && minus === null ? usualBadJointOhms(machine) : 0;
  // Rust sits where the strap meets the body.
  const joints =
    looked === 'rust'
      ? { plusOhms: plus ?? 0, minusOhms: minus ?? seen }
      : { plusOhms: plus ?? seen, minusOhms: minus ?? 0 };
  return joints.plusOhms + joints.minusOhms > 0 ? joints : null;
}

/** The resistance at which this machine, cranking by itself, loses so many volts across that joint. */
function ohmsFromDrop(
  drop: number,
  side: 'plus' | 'minus',
  { engine }: Machine,
  { models }: CasualtyBatteries,
  tempC: number,
): number {
  if (!engine) return drop / LAMPS_AMPS;
  const lost = (ohms: number): number => {
    const joints = { plusOhms: side === 'plus' ? ohms : 0, minusOhms: side === 'minus' ? ohms : 0 };
    return ohms * crankPoint({ ...aloneRescue(models, tempC), joints }, engine).starterAmps;
  };
  return bisect((ohms) => lost(ohms) < drop, 0, MOST_OHMS).low;
}
