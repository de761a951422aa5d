import type { CalcInput, CalcOutput, CalcVerb } from '@voltrek/contracts/calc';
import { freezePointC, socFromCells, socFromRestVolts } from '@voltrek/core/battery';
import {
  balancedMaxVolts,
  bankFallVolts,
  crankCount,
  equalise,
  equalisingOhms,
  holdUpHours,
  rechargeSeconds,
  usableJoules,
} from '@voltrek/core/capacitor';
import { acceptanceAmps, chargeHours, daysToFlat, driveMinutes, startCostAh } from '@voltrek/core/charging';
import type { Terminal } from '@voltrek/core/circuit';
import { crankPoint, type CrankTrace, simulateCrank, toSpice } from '@voltrek/core/crank';
import { type BatteryBelief, drawSound, modelOf, type Population, startOdds } from '@voltrek/core/belief';
import { afterWait, crankCaseOf, leadGrid, type PlanCase, waitCurve } from '@voltrek/core/plan';
import { seededRandom } from '@voltrek/core/quantities';
import { bankOf } from '@voltrek/core/sources';

import { diagnoseInput, verdictInput } from './diagnose.js';
import { checkActions, makeSafeAfter, planHookup } from './hookup.js';
import { traceInput } from './trace.js';

const SEED = 20;
const SAMPLES = 4000;
const WAIT_SAMPLES = 500;
const GRID_SAMPLES = 200;
const WAIT_MINUTES = 15;
const TRACE_SECONDS = 3;
/** Spread of capacitance assumed of cells whose tolerance is not given. */
const CELL_TOLERANCE = 0.2;
/** A contact current that clamps and hands stand. */
const GENTLE_AMPS = 10;
/** Seconds that a start is reckoned at when only its amps are given. */
const START_SECONDS = 3;

/** The rescue of the command line as a plan's case. @throws RangeError for a rescue that does not fit together */
function caseOf(input: CalcInput<'odds'>): PlanCase {
  const { tempC, engine, batteries, source, leads, acrossBattery } = input;
  if (batteries.length * 12 !== engine.systemVolts)
    throw new RangeError(
      `batteries: a ${engine.systemVolts} V system has ${engine.systemVolts / 12} of them`,
    );
  if (Boolean(source) !== Boolean(leads))
    throw new RangeError('leads: a source needs leads, and leads a source');
  if (acrossBattery != null && acrossBattery >= batteries.length)
    throw new RangeError('acrossBattery: there is no such battery');
  const beliefs = batteries.map((battery): BatteryBelief => {
    const { rating, soc, ageing, overDischargedVolts } = battery;
    return {
      rating,
      soc,
      socLow: battery.socLow ?? soc,
      socHigh: battery.socHigh ?? soc,
      ...(ageing != null && { ageing }),
      ...(overDischargedVolts != null && { overDischargedVolts }),
    };
  });
  const red: Terminal = { kind: 'plus', battery: acrossBattery ?? batteries.length - 1 };
  const black: Terminal =
    acrossBattery == null || acrossBattery === 0
      ? { kind: 'body' }
      : { kind: 'minus', battery: acrossBattery };
  const joined = source && leads;
  return {
    engine: { ...engine, systemVolts: engine.systemVolts === 24 ? 24 : 12 },
    beliefs,
    waitMinutes: input.waitMinutes ?? 0,
    chargeOnly: false,
    rescue: {
      casualty: beliefs.map((belief) => modelOf(belief, tempC)),
      load: { kind: 'none' },
      source: source
        ? {
            openVolts: source.openVolts,
            ohms: source.ohms,
            polarises: source.polarises ?? false,
            ...(source.alternator && { alternator: source.alternator }),
            ...(source.capacitor && { capacitor: source.capacitor }),
          }
        : null,
      sourceOn: true,
      leads: leads ?? null,
      tempC,
      clamps: {
        redCasualty: joined ? red : null,
        redSource: joined ? red : null,
        blackSource: joined ? black : null,
        blackCasualty: joined ? black : null,
      },
    },
  };
}

/** The circuit is given by hand: nothing but its charge is at fault. */
function soundOf(
  {
    samples,
    seed,
  }: { readonly samples?: number | null | undefined; readonly seed?: number | null | undefined },
  usual: number,
): Population {
  return drawSound(samples ?? usual, seededRandom(seed ?? SEED));
}

type Runs = { readonly [V in CalcVerb]: (input: CalcInput<V>) => CalcOutput<V> };

/** Computes each verb. Every one is the core's own function; this only gives it its shape. */
export const RUNS: Runs = {
  soc: ({ chemistry, tempC, restVolts, gravities }) => {
    const read = gravities
      ? socFromCells(gravities, tempC)
      : { ...socFromRestVolts(chemistry, restVolts!, tempC), badCell: null };
    return {
      soc: read.soc,
      low: read.low,
      high: read.high,
      belowFlat: read.belowFlat,
      freezeC: freezePointC(chemistry, read.low, restVolts ?? undefined),
      badCell: read.badCell,
    };
  },
  crank: (input) => {
    const plan = caseOf(input);
    const steady = crankPoint(afterWait(plan).rescue, plan.engine);
    const trace = simulateCrank(crankCaseOf(plan, input.seconds ?? TRACE_SECONDS));
    const { controlMinVolts: _volts, ...point } = steady;
    return {
      ...point,
      dipVolts: trace.dipVolts,
      startsAtSeconds: trace.startsAtSeconds,
      leadRiseC: trace.leadRiseC,
      endSoc: [...trace.endSoc],
      ...(input.trace && { trace: lists(trace) }),
    };
  },
  odds: (input) => {
    const plan = caseOf(input);
    const odds = startOdds(afterWait(plan), plan.engine, soundOf(input, SAMPLES))!;
    const { kinds: _none, ...figures } = odds;
    return { ...figures, matters: { ...odds.matters } };
  },
  wait: (input) => {
    const curve = waitCurve(caseOf(input), input.minutes ?? WAIT_MINUTES, soundOf(input, WAIT_SAMPLES))!;
    return { ...curve, start: [...curve.start], soc: [...curve.soc] };
  },
  leads: (input) => {
    const cells = leadGrid(caseOf(input), soundOf(input, GRID_SAMPLES));
    if (!cells) throw new RangeError('leads: give a source and leads to compare others with');
    return { cells };
  },
  spice: (input) => ({ netlist: toSpice(crankCaseOf(caseOf(input), input.seconds ?? TRACE_SECONDS)) }),
  capacitor: ({ bank: cells, volts, minVolts, amps, secondsEach, tolerance, chargeAmps, drainAmps }) => {
    const bank = bankOf(cells);
    const fall = bankFallVolts(bank, amps, secondsEach);
    return {
      ...bank,
      balancedMaxVolts: balancedMaxVolts(cells, tolerance ?? CELL_TOLERANCE),
      usableJoules: usableJoules(bank.farads, volts, minVolts),
      fallByChargeVolts: fall.charge,
      fallByEsrVolts: fall.esr,
      cranks: crankCount(bank, volts, minVolts, amps, secondsEach),
      rechargeSeconds: chargeAmps == null ? null : rechargeSeconds(bank.farads, minVolts, volts, chargeAmps),
      holdUpHours: drainAmps == null ? null : holdUpHours(bank.farads, volts, minVolts, drainAmps),
    };
  },
  diagnose: diagnoseInput,
  verdict: verdictInput,
  trace: traceInput,
  hookup: planHookup,
  check: checkActions,
  makesafe: makeSafeAfter,
  equalise: ({ safeVolts, ...input }) => ({
    ...equalise(input, safeVolts),
    ohmsForTenAmps: equalisingOhms(input.highVolts - input.lowVolts, GENTLE_AMPS),
  }),
  charge: ({ rating, soc, targetSoc, amps, tempC, startAmps, startSeconds, drainAmps }) => {
    const startAh = startCostAh(startAmps ?? 0, startSeconds ?? START_SECONDS);
    const drive = driveMinutes(rating, soc, targetSoc, amps, startAh, tempC);
    return {
      hours: chargeHours(rating, soc, targetSoc, amps, tempC),
      acceptanceAmps: acceptanceAmps(rating, soc, tempC),
      startMinutes: startAmps == null ? null : drive.startMinutes,
      driveMinutes: drive.targetMinutes,
      needsCharger: drive.needsCharger,
      daysToFlat: drainAmps == null ? null : daysToFlat(rating, soc, drainAmps),
    };
  },
};

function lists(trace: CrankTrace) {
  const { seconds, postVolts, starterVolts, starterAmps, sourceAmps, rpm } = trace;
  return {
    seconds: [...seconds],
    postVolts: [...postVolts],
    starterVolts: [...starterVolts],
    starterAmps: [...starterAmps],
    sourceAmps: [...sourceAmps],
    rpm: [...rpm],
  };
}
