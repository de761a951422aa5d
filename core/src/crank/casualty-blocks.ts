import { blockOhms, blockOpenVolts, type BlockRating, type BlockState } from '../battery/block.js';
import { socFromRestVolts } from '../battery/rest-volts.js';
import type { ModelBlock } from '../circuit/rescue.js';
import type { Machine } from '../machine/machine.js';

/** What is known of one block: its rating, and its charge within a band. */
export interface BlockBelief {
  readonly rating: BlockRating;
  readonly soc: number;
  readonly socLow: number;
  readonly socHigh: number;
  /** Rest volts when below the flat line; otherwise left out. */
  readonly overDischargedVolts?: number;
}

/** The casualty's blocks as the plan takes them: measured where a reading is there, assumed where not. */
export interface CasualtyBlocks {
  readonly models: readonly ModelBlock[];
  readonly socs: readonly number[];
  readonly beliefs: readonly BlockBelief[];
  /** At least one block has been read. */
  readonly measured: boolean;
  readonly allMeasured: boolean;
  /** Index of the block with the least charge. */
  readonly weakest: number;
  /** Every block but the weakest can carry its half of a crank. */
  readonly othersSound: boolean;
  readonly totalVolts: number;
}

/** Charge assumed of a block nobody has measured on a machine that will not start. */
export const ASSUMED_SOC = 0.1;
/** Band of that assumption: it may be quite flat or half full. */
const ASSUMED_BAND = { low: 0, high: 0.5 } as const;
/** Resistance growth assumed of a casualty's block: a few winters old. */
export const ASSUMED_AGEING = 1.3;
/** Charge at which the other block of a string can carry its half of a crank. */
const SOUND_SOC = 0.5;
/** Lowest open volts a living block is modelled at: a meter may read zero through an open joint, a resistance needs a positive figure. */
const LEAST_STARVED_VOLTS = 0;

/**
 * Blocks of the machine in the state that the readings show.
 *
 * @param restVolts rest volts of each block from the chassis side up; null where not read
 */
export function casualtyBlocks(
  machine: Machine,
  restVolts: readonly (number | null)[],
  tempC: number,
): CasualtyBlocks {
  const states = machine.blocks.map((block, i): BlockState => {
    const volts = restVolts[i] ?? null;
    if (volts === null) return { soc: ASSUMED_SOC, tempC, ageing: ASSUMED_AGEING };
    const { soc, belowFlat } = socFromRestVolts(block.rating.chemistry, volts, tempC);
    return {
      soc,
      tempC,
      ageing: ASSUMED_AGEING,
      ...(belowFlat && { overDischargedVolts: Math.max(volts, LEAST_STARVED_VOLTS) }),
    };
  });
  const models = states.map((state, i) => ({
    openVolts: blockOpenVolts(machine.blocks[i]!.rating, state),
    ohms: blockOhms(machine.blocks[i]!.rating, state),
  }));
  const socs = states.map((s) => s.soc);
  const beliefs = states.map((state, i): BlockBelief => {
    const { rating } = machine.blocks[i]!;
    const volts = restVolts[i] ?? null;
    const band = volts === null ? ASSUMED_BAND : socFromRestVolts(rating.chemistry, volts, tempC);
    const { soc, overDischargedVolts } = state;
    return {
      rating,
      soc,
      socLow: band.low,
      socHigh: band.high,
      ...(overDischargedVolts !== undefined && { overDischargedVolts }),
    };
  });
  const volts = models.map((m) => m.openVolts);
  const weakest = volts.indexOf(Math.min(...volts));
  const read = machine.blocks.map((_, i) => (restVolts[i] ?? null) !== null);
  return {
    models,
    socs,
    beliefs,
    measured: read.some(Boolean),
    allMeasured: read.every(Boolean),
    weakest,
    othersSound: socs.every((soc, i) => i === weakest || soc >= SOUND_SOC),
    totalVolts: volts.reduce((sum, v) => sum + v, 0),
  };
}
