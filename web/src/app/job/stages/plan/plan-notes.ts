import { crankCount } from '@voltrek/core/capacitor';
import { fixed } from '@words/numbers';
import type { RankedOption } from '@voltrek/core/plan';
import { knowsLatchWires } from '@voltrek/core/reach';
import { bankAt, BOOSTER_FILLED_VOLTS, boosterFillSeconds, usualLatchPoint } from '@voltrek/core/sources';
import { clock, volts } from '@words/figures';
import { LATCH_FAULT_WORDS } from '@words/words';
import type { Work } from '../../../shared/job/job-selectors';
import { PLAN_NOTES as T } from '@words/screens/job-stages-plan';

/** Something of the van that does more, or less, than rank as a source. */
export interface PlanNote {
  readonly name: string;
  readonly text: string;
}

/** A crank of this long is counted, s. */
const COUNTED_SECONDS = 1.5;

/** The booster and the latch source on this job. */
export function notesOf(
  { machine, kit, rules, situation }: Work,
  ranked: readonly RankedOption[],
): PlanNote[] {
  const hasLatch = knowsLatchWires(machine);
  return kit.flatMap((item): PlanNote[] => {
    if (item.kind === 'latch-source' && hasLatch) {
      const { amps, fault } = usualLatchPoint(item.volts);
      const does = fault ? LATCH_FAULT_WORDS[fault] : T.latchReleases;
      return [{ name: item.name, text: T.latchAmps({ amps: fixed(amps, 2), does }) }];
    }
    if (item.kind === 'capacitor-booster') {
      const amps = ranked.find((r) => r.option.sourceId === item.id)?.crank?.starterAmps;
      const { models, weakest } = situation.batteries;
      const emptied = { ...item, volts: rules.capacitorMinVolts };
      const seconds = boosterFillSeconds(emptied, BOOSTER_FILLED_VOLTS, models[weakest]!);
      const cranks =
        amps &&
        crankCount(bankAt(item, situation.tempC), item.volts, rules.capacitorMinVolts, amps, COUNTED_SECONDS);
      const parts = [
        ...(cranks === undefined ? [] : [cranksText(cranks, rules.capacitorMinVolts)]),
        ...(item.converterAmps === null ? [] : [fillText(seconds)]),
      ];
      return parts.length === 0 ? [] : [{ name: item.name.split(',')[0]!, text: `${parts.join(', ')}.` }];
    }
    return [];
  });
}

/** @param seconds null where the battery cannot feed it */
function fillText(seconds: number | null): string {
  return seconds === null ? T.cannotFill : T.fillsItself({ minutes: clock(seconds) });
}

/** @param leastVolts the bank counts as empty below this */
function cranksText(cranks: number, leastVolts: number): string {
  const howLong = T.cranksFor({ seconds: COUNTED_SECONDS, volts: volts(leastVolts, 1) });
  if (cranks === 0) return T.noWholeCrank({ howLong });
  return `${cranks} ${cranks === 1 ? 'crank' : 'cranks'} ${howLong}`;
}
