import {
  batteryOhms,
  type BatteryRating,
  type BatteryState,
  openVoltsByCharge,
  POLARISATION,
  polarisedShare,
  resistanceByCharge,
} from '../battery/index.js';
import { ALTERNATOR_OHMS, type NodeName, rescueCircuit } from '../circuit/index.js';
import {
  BREAKAWAY_DECAY_RAD_S,
  compressionRipple,
  defaultStarter,
  dragTerms,
  inertiaKgM2,
} from '../engine/index.js';
import { interpolate, type Knots } from '../quantities/index.js';
import type { SourceModel } from '../sources/index.js';
import type { CrankCase } from './crank-case.js';
import { STEP_SECONDS } from './crank-steps.js';

/** Speed over which friction changes sign in the netlist, rad/s: a smooth stand-in for standing still. */
const STICK_RAD_S = 0.02;

/**
 * The crank as a netlist that any SPICE runs: parameters as numbers, node names readable. The engine is its electrical equivalent:
 * inertia as a capacitor whose volts are rad/s, torque as the current into it. Run it with `ngspice -b FILE`.
 */
export function toSpice(input: CrankCase): string {
  const starter = input.starter ?? defaultStarter(input.engine);
  const circuit = rescueCircuit({
    ...input.rescue,
    load: { kind: 'starter', backEmfVolts: 0, ohms: starter.ohms },
  });
  const lines = [
    '* crank of a rescue, from the moment the starter contact closes',
    `* volts at 'crank_rad_s' are crank speed in rad/s`,
  ];
  for (const e of circuit.elements) {
    if (e.kind === 'resistor') lines.push(`R${word(e.name)} ${node(e.a)} ${node(e.b)} ${figure(e.ohms)}`);
    else if (e.kind === 'regulated') {
      const across = `V(${node(e.plus)},${node(e.minus)})`;
      lines.push(
        `B${word(e.name)} ${node(e.minus)} ${node(e.plus)} I = min(${figure(e.maxAmps)}, max(0, (${figure(e.volts)} - ${across}) / ${figure(ALTERNATOR_OHMS)}))`,
      );
    } else if (e.kind === 'source' && e.name === 'starter') {
      lines.push(
        `R${word('starter')} ${node(e.plus)} starter_inside ${figure(starter.ohms)}`,
        'Vstarter_amps starter_inside starter_emf 0',
        `Bstarter_emf starter_emf ${node(e.minus)} V = ${figure(starter.kVoltSeconds)} * V(crank_rad_s)`,
      );
    } else if (e.kind === 'source' && e.name === 'source' && input.rescue.source) {
      lines.push(...sourceLines(input.rescue.source, e.plus, e.minus));
    } else if (e.kind === 'source') {
      const battery = input.batteries[Number(e.name.replace('casualty.battery', ''))]!;
      lines.push(
        ...('rating' in battery
          ? batteryLines(word(e.name), battery.rating, battery.state, e.plus, e.minus)
          : bankLines(
              word(e.name),
              battery.bank.farads,
              battery.bank.esrOhms,
              battery.volts,
              e.plus,
              e.minus,
            )),
      );
    }
  }
  lines.push(...engineLines(input, starter.efficiency * starter.kVoltSeconds));
  // Every node has a path to ground, so that a lead whose far end is free has volts.
  for (const name of freeNodes(input)) lines.push(`Rleak_${node(name)} ${node(name)} 0 1e9`);
  lines.push(
    `.tran ${figure(STEP_SECONDS)} ${figure(input.seconds)} 0 ${figure(STEP_SECONDS)} uic`,
    '.end',
    '',
  );
  return lines.join('\n');
}

function batteryLines(
  name: string,
  rating: BatteryRating,
  state: BatteryState,
  plus: NodeName,
  minus: NodeName,
): string[] {
  const first = batteryOhms(rating, state);
  const { seconds } = POLARISATION;
  const share = polarisedShare(rating.chemistry);
  const byCharge = resistanceByCharge(rating.chemistry);
  const charge = `V(soc_${name})`;
  // Resistance against its first value follows the table of charge; age, cold and over-discharge stay as they are.
  const whole = `${figure(first / interpolate(byCharge, state.soc))} * ${pwl(charge, byCharge)}`;
  const open = pwl(charge, openVoltsByCharge(rating, state));
  const amps = `I(V${name}_amps)`;
  return [
    `B${name} ${name}_emf ${node(minus)} V = ${open} - V(polarised_${name}) - (${whole} - ${figure(first)}) * ${figure(1 - share)} * ${amps}`,
    `V${name}_amps ${name}_emf ${name}_inside 0`,
    `R${name} ${name}_inside ${node(plus)} ${figure(first * (1 - share))}`,
    `Cpolarised_${name} polarised_${name} 0 1 ic=0`,
    `Bpolarised_${name} 0 polarised_${name} I = (${amps} * ${whole} * ${figure(share)} - V(polarised_${name})) / ${figure(seconds)}`,
    `Csoc_${name} soc_${name} 0 ${figure(rating.capacityAh * 3600)} ic=${figure(state.soc)}`,
    `Bsoc_${name} soc_${name} 0 I = ${amps}`,
  ];
}

function bankLines(
  name: string,
  farads: number,
  esrOhms: number,
  volts: number,
  plus: NodeName,
  minus: NodeName,
): string[] {
  return [
    `C${name} ${name}_inside ${node(minus)} ${figure(farads)} ic=${figure(volts)}`,
    `R${name} ${name}_inside ${node(plus)} ${figure(esrOhms)}`,
  ];
}

function sourceLines(source: SourceModel, plus: NodeName, minus: NodeName): string[] {
  if (source.capacitor) {
    const { farads, esrOhms } = source.capacitor;
    return bankLines('source', farads, esrOhms, source.openVolts, plus, minus);
  }
  const share = source.polarises ? POLARISATION.share : 0;
  return [
    `Bsource source_emf ${node(minus)} V = ${figure(source.openVolts)} - V(polarised_source)`,
    'Vsource_amps source_emf source_inside 0',
    `Rsource source_inside ${node(plus)} ${figure(source.ohms * (1 - share))}`,
    'Cpolarised_source polarised_source 0 1 ic=0',
    `Bpolarised_source 0 polarised_source I = (I(Vsource_amps) * ${figure(source.ohms * share)} - V(polarised_source)) / ${figure(POLARISATION.seconds)}`,
  ];
}

function engineLines({ engine, rescue }: CrankCase, torquePerAmp: number): string[] {
  const { tempC } = rescue;
  const { still, oil, grip } = dragTerms(engine, tempC);
  const speed = 'V(crank_rad_s)';
  const drag = `(${figure(still)} + ${figure(oil)} * sqrt(max(${speed}, 0)) + ${figure(grip)} * exp(-(${speed} / ${figure(BREAKAWAY_DECAY_RAD_S)})^2))`;
  const swing = `(1 + ${figure(compressionRipple(engine))} * sin(${figure(engine.cylinders / 2)} * V(crank_angle)))`;
  return [
    `Ccrank crank_rad_s 0 ${figure(inertiaKgM2(engine))} ic=0`,
    `Btorque 0 crank_rad_s I = ${figure(torquePerAmp)} * I(Vstarter_amps)`,
    `Bdrag crank_rad_s 0 I = ${drag} * ${swing} * tanh(${speed} / ${figure(STICK_RAD_S)})`,
    'Cangle crank_angle 0 1 ic=0',
    `Bangle 0 crank_angle I = ${speed}`,
  ];
}

function freeNodes({ rescue }: CrankCase): NodeName[] {
  return rescue.source && rescue.leads
    ? ['clamp.redCasualty', 'clamp.redSource', 'clamp.blackCasualty', 'clamp.blackSource']
    : [];
}

/**
 * Node names as SPICE takes them; the casualty's body is its ground.
 *
 * @example node('casualty.body') // => '0'
 */
export function node(name: NodeName): string {
  return name === 'casualty.body' ? '0' : word(name);
}

function word(name: string): string {
  return name.replace(/\+/g, '_plus').replace(/-/g, '_minus').replace(/\./g, '_').toLowerCase();
}

function figure(value: number): string {
  return Number(value.toPrecision(12)).toString();
}

/** A table as SPICE reads it, held flat beyond both ends. */
function pwl(of: string, knots: Knots): string {
  const first = knots[0]!;
  const last = knots[knots.length - 1]!;
  const points = [[first[0] - 1, first[1]] as const, ...knots, [last[0] + 1, last[1]] as const];
  return `pwl(${of}, ${points.map(([x, y]) => `${figure(x)}, ${figure(y)}`).join(', ')})`;
}
