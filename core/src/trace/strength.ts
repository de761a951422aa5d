import { bisect } from '../quantities/index.js';
import {
  batteryOhms,
  batteryOpenVolts,
  type BatteryRating,
  POLARISATION,
  socFromRestVolts,
  strengthShare,
} from '../battery/index.js';
import { aloneRescue } from '../circuit/index.js';
import { crankPoint } from '../crank/index.js';
import type { Engine } from '../engine/index.js';
import { type RecordedCrank, STEADY_SECONDS, type TraceFindings } from './analyse.js';

/** The strength of a battery by a crank of its own. */
export interface CrankStrength {
  /** Of one battery, all of it, ohms. */
  readonly ohms: number;
  /** Against new at this charge and temperature. */
  readonly ageing: number;
  /** Estimated cold-cranking amps, by the rating's own standard. */
  readonly ccaAmps: number;
  /** Share of the rating, with the band it may truly lie in. */
  readonly share: number;
  readonly low: number;
  readonly high: number;
}

/** Spread of the resistance when amps were logged, and when the model's drag had to stand in for them; as shares of it. */
const SPREAD_WITH_AMPS = 0.08;
const SPREAD_WITHOUT_AMPS = 0.25;
const AGEING_LEAST = 0.5;
const AGEING_MOST = 20;

/** Share of a battery's resistance that has come in over a stretch after the contact, on average. */
function shareIn(fromSeconds: number, toSeconds: number): number {
  const { share, seconds } = POLARISATION;
  const span = Math.max(0.05, toSeconds - fromSeconds);
  const left =
    (seconds / span) * (Math.exp(-fromSeconds / seconds) - Math.exp(-(fromSeconds + span) / seconds));
  return 1 - share * left;
}

/**
 * Strength of the battery from a crank without help: from volts and amps where both were logged. Otherwise from the volts and the amps that
 * this starter draws at them.
 *
 * @param restVolts of the string, before the crank
 * @returns null where the strength is unknown: no rest volts, or a crank that hardly drew
 */
export function strengthFromCrank(
  crank: Pick<RecordedCrank, 'fromSeconds' | 'toSeconds' | 'meanVolts' | 'meanAmps'>,
  restVolts: number,
  rating: BatteryRating,
  engine: Engine,
  tempC: number,
): CrankStrength | null {
  // A bank falls by what it gives: its fall says nothing of its resistance.
  if (rating.chemistry === 'capacitor') return null;
  const batteries = engine.systemVolts / 12;
  const { soc } = socFromRestVolts(rating.chemistry, restVolts / batteries, tempC);
  const state = { soc, tempC, ageing: 1 };
  const openVolts = batteryOpenVolts(rating, state);
  const newOhms = batteryOhms(rating, state);
  const come = shareIn(STEADY_SECONDS, crank.toSeconds - crank.fromSeconds);
  const fell = restVolts - crank.meanVolts;
  if (!(fell > 0.1 * batteries)) return null;
  const ageing =
    crank.meanAmps === null
      ? ageingOfVolts(crank.meanVolts, openVolts, newOhms * come, engine, tempC)
      : crank.meanAmps > 1
        ? fell / crank.meanAmps / batteries / (newOhms * come)
        : null;
  if (ageing === null) return null;
  const spread = crank.meanAmps === null ? SPREAD_WITHOUT_AMPS : SPREAD_WITH_AMPS;
  const held = Math.min(AGEING_MOST, Math.max(AGEING_LEAST, ageing));
  const share = strengthShare(held);
  return {
    ohms: newOhms * held,
    ageing: held,
    ccaAmps: rating.ccaAmps * share,
    share,
    low: strengthShare(held * (1 + spread)),
    high: strengthShare(held * (1 - spread)),
  };
}

/** Strength of the battery from a whole trace; null without a crank, an engine to turn or rest volts before it. */
export function strengthOfTrace(
  { crank, restVolts }: TraceFindings,
  rating: BatteryRating,
  engine: Engine | null,
  tempC: number,
): CrankStrength | null {
  // A solenoid that chatters loads the battery by fits and starts: that is no crank to judge it by.
  return crank && engine && restVolts !== null && crank.chatterPerSecond === null
    ? strengthFromCrank(crank, restVolts, rating, engine, tempC)
    : null;
}

/** The ageing at which this engine's starter would pull the posts to these volts: they fall as it grows. */
function ageingOfVolts(
  meanVolts: number,
  openVolts: number,
  newOhms: number,
  engine: Engine,
  tempC: number,
): number {
  const batteries = engine.systemVolts / 12;
  const postVolts = (ageing: number): number => {
    const battery = { openVolts, ohms: newOhms * ageing };
    return crankPoint(
      aloneRescue(
        Array.from({ length: batteries }, () => battery),
        tempC,
      ),
      engine,
    ).postVolts;
  };
  const { low, high } = bisect((ageing) => postVolts(ageing) > meanVolts, AGEING_LEAST, AGEING_MOST);
  return (low + high) / 2;
}
