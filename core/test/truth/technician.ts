import { ATTEMPT_OUTCOMES } from '../../src/crank/index.js';
import type {} from '../../src/crank/index.js';
import type { Cause, CheckId, Found } from '../../src/diagnosis/index.js';
import type {} from '../../src/crank/index.js';
import { SYMPTOMS } from '../../src/diagnosis/index.js';
import type { Random } from '../../src/quantities/index.js';
import {
  between,
  bump,
  crankOf,
  type Look,
  odds,
  ohmsOf,
  oneOf,
  openVolts,
  type Stranded,
  type TrueHelp,
} from './world.js';

/** The technician: a meter that may be out, hands that may be hasty. */
export interface Technician {
  readonly meterGain: number;
  readonly meterOffset: number;
  readonly testerGain: number;
  /** Share of readings taken at the clamp and not the post, too early, or written down wrong. */
  readonly sloppy: number;
}

export function technician(random: Random): Technician {
  const isOff = odds(random, 0.06);
  return {
    meterGain: 1 + bump(random, -0.006, 0.006),
    meterOffset: isOff ? bump(random, -0.15, 0.15) : bump(random, -0.03, 0.03),
    testerGain: 1 + bump(random, -0.1, 0.1),
    sloppy: oneOf(random, [0.01, 0.02, 0.04]),
  };
}

/** Cold-cranking limit at the posts by the trade's table, V per 12 V. */
function crankLimit(tempC: number): number {
  const rows: readonly [number, number][] = [
    [-18, 8.5],
    [-7, 8.9],
    [0, 9.1],
    [4, 9.3],
    [10, 9.4],
    [16, 9.5],
    [21, 9.6],
  ];
  if (tempC <= rows[0]![0]) return rows[0]![1];
  for (let i = 1; i < rows.length; i++) {
    const [t1, v1] = rows[i]!;
    const [t0, v0] = rows[i - 1]!;
    if (tempC <= t1) return v0 + ((v1 - v0) * (tempC - t0)) / (t1 - t0);
  }
  return rows.at(-1)![1];
}

const DONOR: TrueHelp = { volts: 12.9, ohms: 0.0085 };

/** Amps of the dash, units and pump with the key on, by class. */
const KEY_ON_AMPS: Record<Stranded['machineClass'], readonly [number, number]> = {
  ...{ car: [12, 28], van: [12, 28], hybrid: [12, 28], ev: [12, 28], truck: [10, 24] },
  ...{ plant: [7, 16], motorcycle: [5, 11], 'ride-on': [2, 6], genset: [2, 6], boat: [4, 10] },
};

/** Returns this technician's finding of a check on this machine; null where it cannot be done. */
export function findingFor(check: CheckId, it: Stranded, who: Technician, random: Random): Found | null {
  const has = (...causes: Cause[]): boolean => causes.some((cause) => it.faults.includes(cause));
  const scale = it.systemVolts / 12;
  const meter = (volts: number): number => {
    const read = volts * who.meterGain + who.meterOffset + bump(random, -0.02, 0.02);
    return odds(random, who.sloppy) ? misread(read, random) : Number(read.toFixed(2));
  };
  const rest = it.cells.map((cell) => openVolts(cell, it.rating.chemistry));
  const surface = it.restedMinutes < 60 && Math.min(...it.cells.map((c) => c.charge)) > 0.3 ? 0.25 : 0;
  const likely = (share: number, yes: Found, no: Found): Found => (odds(random, share) ? yes : no);
  const alone = crankOf(it, null);
  const helped = crankOf(it, DONOR);
  const runs = it.engine !== null && (alone.look === 'starts' || helped.look === 'starts');

  switch (check) {
    case 'symptom':
      return symptomOf(it, alone.look, random);
    case 'ask-left-on':
      return has('left-on') ? likely(0.85, 'yes', 'no') : likely(0.05, 'yes', 'no');
    case 'look-switches':
      return has('left-on') ? likely(0.8, 'one-is-on', 'all-off') : likely(0.03, 'one-is-on', 'all-off');
    case 'ask-use':
      return odds(random, 0.86) ? it.driver.use : oneOf(random, ['regular', 'short-trips', 'stood-weeks']);
    case 'ask-flats':
      return it.driver.earlierFlat ? likely(0.88, 'yes', 'no') : likely(0.04, 'yes', 'no');
    case 'ask-dims': {
      if (!it.engine) return null;
      const lamps = (alone.postVolts - alone.amps * (it.plusOhms + it.minusOhms)) / scale;
      const seen = has('main-fuse') || lamps < 6 ? 'go-out' : lamps < 10 ? 'dim' : 'stay-bright';
      return odds(random, 0.82) ? seen : oneOf(random, ['go-out', 'dim', 'stay-bright']);
    }
    case 'ask-slow-lately': {
      if (!it.engine) return null;
      const strength = Math.min(...it.cells.map((c) => c.strength));
      const warned = strength < 0.68 ? 0.6 : it.plusOhms + it.minusOhms + it.cableOhms > 0.006 ? 0.4 : 0.12;
      return likely(has('starter', 'charging') ? Math.max(warned, 0.35) : warned, 'yes', 'no');
    }
    case 'ask-warned': {
      if (it.engine) return null;
      const isWeak = Math.min(...it.cells.map((c) => c.strength)) < 0.68;
      return likely(has('converter') ? 0.5 : isWeak ? 0.55 : 0.1, 'yes', 'no');
    }
    case 'ask-charge-lamp':
      if (!it.engine) return null;
      if (!has('charging')) return likely(0.04, 'was-lit', 'out');
      return likely(it.chargingRevved < 13.1 ? 0.66 : 0.25, 'was-lit', 'out');
    case 'ask-noise':
      if (!it.engine) return null;
      if (it.beltBad) return likely(0.45, 'squeal', 'none');
      return has('starter') ? likely(0.25, 'grind', 'none') : likely(0.06, 'squeal', 'none');
    case 'ask-helped':
      if (!it.driver.earlierFlat) return likely(0.93, 'not-helped', 'held');
      return odds(random, 0.7)
        ? likely(has('charging', 'drain', 'worn', 'sulphated') ? 0.7 : 0.35, 'flat-again', 'held')
        : 'not-helped';
    case 'look-joints':
      if (has('joint-loose')) return likely(0.9, 'turns-by-hand', 'clean');
      if (has('joint-positive', 'joint-negative')) return likely(0.62, 'deposits', 'clean');
      return odds(random, 0.09) ? 'deposits' : likely(0.015, 'turns-by-hand', 'clean');
    case 'look-belt':
      return it.beltBad ? likely(0.85, 'bad', 'sound') : likely(0.05, 'bad', 'sound');
    case 'look-date': {
      const years = it.cells[0]!.years + (odds(random, 0.06) ? between(random, -3, 3) : 0);
      return years < 3 ? 'under-3' : years < 6 ? '3-to-6' : 'over-6';
    }
    case 'interlocks':
      return has('interlock') ? likely(0.92, 'fault', 'clear') : likely(0.02, 'fault', 'clear');
    case 'immobiliser-lamp':
      return has('immobiliser') ? likely(0.9, 'lit', 'out') : likely(0.02, 'lit', 'out');
    case 'isolator-fuse':
      return has('main-fuse') ? likely(0.92, 'fault', 'clear') : likely(0.015, 'fault', 'clear');
    case 'fuel-gauge':
      return has('fuel') ? likely(0.5, 'empty', 'has-fuel') : likely(0.04, 'empty', 'has-fuel');
    case 'rest':
      return Math.min(...rest.map((v) => meter(v + surface)));
    case 'string-balance':
      return rest.length < 2 ? null : Math.abs(meter(rest[0]!) - meter(rest[1]!));
    case 'key-on': {
      if (has('main-fuse')) return 0;
      const amps = between(random, ...KEY_ON_AMPS[it.machineClass]);
      const drop = it.cells.reduce((sum, cell) => sum + amps * ohmsOf(cell, it.rating, it.tempC), 0);
      const whole = rest.reduce((a, b) => a + b, 0);
      return Number(Math.min(drop, Math.max(0, whole)).toFixed(2)) + bump(random, -0.03, 0.03);
    }
    case 'try-alone':
      return it.engine ? attemptFor(alone.look, random) : null;
    case 'crank':
      if (!it.engine) return null;
      // At the clamp in place of the post the joint's drop is read along.
      return (
        meter(alone.postVolts - (odds(random, who.sloppy * 3) ? alone.amps * it.plusOhms : 0)) / scale -
        crankLimit(it.tempC)
      );
    case 'recovery':
      return it.engine
        ? Math.min(...rest.map((v) => meter(v))) - between(random, 0, 0.25) / it.cells[0]!.strength
        : null;
    case 'joint-plus':
      return meter((it.engine ? alone.amps : 25) * it.plusOhms);
    case 'joint-minus':
      return meter((it.engine ? alone.amps : 25) * it.minusOhms);
    case 'starter-stud': {
      if (!it.engine) return null;
      if (has('main-fuse', 'interlock')) return it.systemVolts;
      return meter(alone.amps * (it.plusOhms + it.minusOhms + it.cableOhms));
    }
    case 'conductance': {
      const worst = it.cells.map((cell) => {
        const flat = cell.charge < 0.7 ? 1 - (0.7 - Math.max(0, cell.charge)) * between(random, 0.5, 1) : 1;
        const over = cell.charge < 0 ? between(random, 0.25, 0.7) : 1;
        const fault =
          cell.shorted > 0 ? between(random, 0.45, 0.9) : cell.linkOhms > 0 ? between(random, 0.05, 0.6) : 1;
        return cell.backwards ? 0.2 : cell.strength * flat * over * fault;
      });
      return Math.max(0.05, Math.min(...worst) * who.testerGain * (1 + bump(random, -0.06, 0.06)));
    }
    case 'load-test': {
      const amps = (it.rating.ccaAmps * 1.03) / 2;
      const under = it.cells.map((cell, i) => rest[i]! - amps * ohmsOf(cell, it.rating, it.tempC));
      return Math.max(meter(Math.max(0, Math.min(...under))), 0) - crankLimit(it.tempC);
    }
    case 'acceptance': {
      const cell = it.cells.reduce((a, b) => (b.charge < a.charge ? b : a));
      if (cell.charge > 0.85) return likely(0.8, 'full-at-once', 'takes-charge');
      if (cell.linkOhms > 0) return likely(0.9, 'full-at-once', 'takes-charge');
      return likely(
        has('sulphated') ? 0.7 : cell.strength < 0.5 ? 0.4 : 0.03,
        'full-at-once',
        'takes-charge',
      );
    }
    case 'specific-gravity': {
      if (it.rating.chemistry !== 'flooded') return null;
      if (it.cells.some((c) => c.shorted > 0)) return likely(0.92, 'one-cell-low', 'even-low');
      if (odds(random, 0.02)) return 'one-cell-low';
      return Math.min(...it.cells.map((c) => c.charge)) > 0.6 ? 'even-high' : 'even-low';
    }
    case 'with-help':
      if (it.engine) return attemptFor(helped.look, random);
      if (has('main-fuse')) return 'nothing';
      if (has('traction-flat', 'charge-point')) return likely(0.85, 'clicks', 'started');
      return it.plusOhms + it.minusOhms > 0.012
        ? likely(0.6, 'clicks', 'started')
        : likely(0.9, 'started', 'clicks');
    case 'charging':
      return runs ? meter(it.chargingIdle) : null;
    case 'charging-loaded':
      return runs ? meter(it.chargingRevved) : null;
    case 'ripple':
      return runs ? Math.max(0, it.ripple + bump(random, -0.03, 0.03)) : null;
    case 'turn-by-hand':
      return it.engine
        ? has('seized')
          ? likely(0.9, 'tight', 'turns')
          : likely(0.03, 'tight', 'turns')
        : null;
    case 'ask-warm':
      if (!it.engine) return null;
      return crankOf({ ...it, tempC: 18 }, null).look === 'starts' && alone.look !== 'starts'
        ? likely(0.7, 'cold-only', 'any-weather')
        : likely(0.07, 'cold-only', 'any-weather');
    case 'drain':
      return has('left-on') && !has('drain')
        ? 0.02
        : Math.max(0.001, it.drainAmps + bump(random, -0.01, 0.01));
    case 'traction-gauge':
      return has('traction-flat', 'charge-point')
        ? likely(0.88, 'flat', 'has-charge')
        : likely(0.04, 'flat', 'has-charge');
    case 'converter':
      return has('converter', 'traction-flat', 'charge-point', 'main-fuse')
        ? meter(between(random, 11.9, 12.6))
        : meter(between(random, 13.5, 14.6));
    case 'charge-lamp':
      return has('charge-point') ? likely(0.9, 'no-lamp', 'ready') : likely(0.05, 'no-lamp', 'ready');
    default:
      return null;
  }
}

/** Two figures swapped, a point in the wrong place, one key beside the other. */
function misread(volts: number, random: Random): number {
  const text = Math.abs(volts).toFixed(2);
  const which = random();
  const wrong =
    which < 0.4
      ? Math.abs(volts) + oneOf(random, [-1, 1])
      : which < 0.8
        ? Number(text.replace(/\.(\d)(\d)/, '.$2$1'))
        : Math.abs(volts) + oneOf(random, [-0.3, 0.3]);
  return Math.sign(volts) * Number(Math.max(0, wrong).toFixed(2));
}

const ATTEMPT: Record<Look, (typeof ATTEMPT_OUTCOMES)[number]> = {
  starts: 'started',
  'brisk-no-fire': 'brisk-no-fire',
  slow: 'slow',
  'rapid-click': 'clicks',
  'one-click': 'clicks',
  silence: 'nothing',
};
function attemptFor(look: Look, random: Random): Found {
  return odds(random, 0.94) ? ATTEMPT[look] : oneOf(random, ATTEMPT_OUTCOMES);
}

const TOLD: Record<Look, (typeof SYMPTOMS)[number]> = {
  starts: 'dies-again',
  'brisk-no-fire': 'brisk-no-fire',
  slow: 'slow-crank',
  'rapid-click': 'rapid-click',
  'one-click': 'one-click',
  silence: 'silence',
};
function symptomOf(it: Stranded, look: Look, random: Random): Found {
  if (odds(random, 0.1)) return oneOf(random, SYMPTOMS);
  if (it.engine && look === 'silence') {
    // The driver sees the dash while the key is held: a battery that gives way under the starter leaves it dark.
    const isDark = it.faults.includes('main-fuse') || crankOf(it, null).postVolts / it.cells.length < 8;
    return isDark === odds(random, 0.92) ? 'silence' : 'silence-bright';
  }
  if (it.engine) return TOLD[look];
  const dead = Math.min(...it.cells.map((c) => openVolts(c, it.rating.chemistry))) < 11.4;
  if (it.faults.includes('traction-flat') || it.faults.includes('charge-point'))
    return dead ? 'no-doors' : 'warning-lamps';
  if (it.faults.includes('converter'))
    return dead ? 'no-doors' : oneOf(random, ['dies-again', 'warning-lamps']);
  return dead || it.faults.includes('main-fuse') ? oneOf(random, ['no-doors', 'silence']) : 'warning-lamps';
}
