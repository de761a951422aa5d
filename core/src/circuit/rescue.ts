import { parameter } from '../quantities/index.js';
import {
  bankFarads,
  batteryOhms,
  batteryOpenVolts,
  type BatteryRating,
  type BatteryState,
} from '../battery/index.js';
import { clampOhms, conductorOhms, type LeadSet } from '../leads/index.js';
import { CAPACITOR_MID_CRANK_S, type SourceModel } from '../sources/index.js';
import type { Circuit, Element, NodeName } from './circuit.js';

/** One end of one lead. */
export const CLAMP_IDS = ['redCasualty', 'redSource', 'blackSource', 'blackCasualty'] as const;
export type ClampId = (typeof CLAMP_IDS)[number];

/**
 * The ends of the red lead, at either vehicle.
 *
 * @example isRedClamp('redSource') // => true
 */
export function isRedClamp(clamp: ClampId): boolean {
  return clamp === 'redCasualty' || clamp === 'redSource';
}

/**
 * The ends that clamp the source, not the casualty.
 *
 * @example isSourceClamp('redCasualty') // => false
 */
export function isSourceClamp(clamp: ClampId): clamp is 'redSource' | 'blackSource' {
  return clamp === 'redSource' || clamp === 'blackSource';
}

export interface ModelBattery {
  readonly openVolts: number;
  readonly ohms: number;
  /** Of a capacitor bank in a battery's place: its volts fall with what it gives. */
  readonly farads?: number;
}

/**
 * A battery in its state, as the circuit sees it. @throws RangeError for a rating or state that is not physical
 *
 * @example modelBattery({ chemistry: 'flooded', capacityAh: 60, ccaAmps: 540, ccaStandard: 'EN' }, { soc: 1, tempC: 20, ageing: 1 }).ohms // => 0.0057
 */
export function modelBattery(rating: BatteryRating, state: BatteryState): ModelBattery {
  const farads = bankFarads(rating);
  return {
    openVolts: batteryOpenVolts(rating, state),
    ohms: batteryOhms(rating, state),
    ...(farads !== null && { farads }),
  };
}

/** A place where a clamp can make contact, electrically. `battery` counts from the chassis side of a string. */
export type Terminal =
  | { readonly kind: 'plus'; readonly battery: number }
  | { readonly kind: 'minus'; readonly battery: number }
  /** A remote post, joined to the top of the string by a cable. */
  | { readonly kind: 'post' }
  /** The stud of the starter that its main cable ends on. */
  | { readonly kind: 'starter' }
  | { readonly kind: 'body' };

/** The load of the casualty's main circuit in this moment. */
export type CasualtyLoad =
  | { readonly kind: 'none' }
  | { readonly kind: 'starter'; readonly backEmfVolts: number; readonly ohms: number }
  | { readonly kind: 'wake'; readonly amps: number };

/** Something beside its own battery that feeds the casualty: between the top of its string and its body. */
export interface Feed {
  readonly name: string;
  readonly volts: number;
  readonly ohms: number;
  /** It gives no more than this; null where nothing limits it. */
  readonly maxAmps: number | null;
}

/** Resistance between a post and its own cable: at the top of the string, and at its lowest minus, ohms. */
export interface BadJoints {
  readonly plusOhms: number;
  readonly minusOhms: number;
}

/** A rescue, described once. */
export interface Rescue {
  /** Casualty batteries from the chassis side up. */
  readonly casualty: readonly ModelBattery[];
  readonly load: CasualtyLoad;
  /** Present once the casualty's own engine runs and charges. */
  readonly casualtyAlternator?: { readonly volts: number; readonly maxAmps: number };
  readonly source: SourceModel | null;
  /** A pack's own switch; a donor counts as on. */
  readonly sourceOn: boolean;
  readonly leads: LeadSet | null;
  readonly tempC: number;
  /** How much worse the contact of the clamps is than their kind usually does; left out: as usual. */
  readonly clampWear?: number;
  /** Metal that touches metal where it should not: a tool, bodywork, two clamps. */
  readonly bridges?: readonly { readonly a: NodeName; readonly b: NodeName; readonly ohms: number }[];
  /** The negative clamp of the lowest battery is off: nothing joins the string to the body. */
  readonly strapOff?: boolean;
  /** Resistance of the casualty's own two battery joints beyond sound ones, ohms; left out: both are sound. */
  readonly joints?: BadJoints;
  /** Other feeds of the casualty. */
  readonly feeds?: readonly Feed[];
  /** The place of each clamp now; null = free. For a source end, a pole of the source. */
  readonly clamps: Readonly<Record<ClampId, Terminal | null>>;
}

/**
 * The same rescue in the middle of a crank: while `I` flows, a bank in a battery's place falls by I t / C. At the moment of judgement that
 * equals the resistance t / C.
 */
export function midCrank(rescue: Rescue): Rescue {
  if (rescue.casualty.every(({ farads }) => farads === undefined)) return rescue;
  const casualty = rescue.casualty.map((battery) =>
    battery.farads === undefined
      ? battery
      : { ...battery, ohms: battery.ohms + CAPACITOR_MID_CRANK_S / battery.farads },
  );
  return { ...rescue, casualty };
}

/** A casualty on its own batteries: nothing joined. */
export function aloneRescue(casualty: readonly ModelBattery[], tempC: number): Rescue {
  return {
    casualty,
    load: { kind: 'none' },
    source: null,
    sourceOn: false,
    leads: null,
    tempC,
    clamps: { redCasualty: null, redSource: null, blackSource: null, blackCasualty: null },
  };
}

/** Casualty's own joints and cables, ohms: main cable to the starter, strap to the body, cable to a remote post, link in a string. */
export const STARTER_CABLE_OHMS = parameter(0.0012, {
  id: 'cable.starter',
  name: 'main cable to the starter',
  low: 0.0005,
  high: 0.003,
  unit: 'ohm',
  reason: 'A metre or two of 25 to 35 mm2 with two joints.',
});
export const BODY_STRAP_OHMS = parameter(0.0004, {
  id: 'cable.strap',
  name: 'body strap',
  low: 0.0002,
  high: 0.002,
  unit: 'ohm',
  reason: 'Sound; a bad one is a fault, not a default.',
});
export const POST_CABLE_OHMS = parameter(0.0008, {
  id: 'cable.post',
  name: 'cable to a remote post',
  low: 0.0004,
  high: 0.003,
  unit: 'ohm',
  reason: 'From the boot it is longer and thicker.',
});
export const LINK_OHMS = parameter(0.0003, {
  id: 'cable.link',
  name: 'link in a string',
  low: 0.0001,
  high: 0.001,
  unit: 'ohm',
  reason: 'Short and thick.',
});
/** The sag of an alternator's regulation, ohms. */
export const ALTERNATOR_OHMS = parameter(0.01, {
  id: 'alternator.ohms',
  name: 'sag of its regulation',
  low: 0.005,
  high: 0.03,
  unit: 'ohm',
  reason: 'It droops a little as it works.',
});

const side = (name: string) => `casualty.${name}`;

/**
 * Node of a place where a casualty clamp can go on.
 *
 * @example terminalNode({ kind: 'plus', battery: 1 }) // => 'casualty.battery1+'
 */
export function terminalNode(terminal: Terminal): NodeName {
  switch (terminal.kind) {
    case 'plus':
      return side(`battery${terminal.battery}+`);
    case 'minus':
      return side(`battery${terminal.battery}-`);
    case 'post':
      return side('post');
    case 'starter':
      return side('starter');
    case 'body':
      return side('body');
  }
}

/**
 * Node of a clamp's own jaw: what it carries whether it is on or hangs free.
 *
 * @example clampNode('blackCasualty') // => 'clamp.blackCasualty'
 */
export function clampNode(clamp: ClampId): NodeName {
  return `clamp.${clamp}`;
}

/** Node that a source end is on: its plus, or its minus, which a vehicle's body is bonded to. */
export function sourceTerminalNode(terminal: Terminal): NodeName {
  return terminal.kind === 'minus' || terminal.kind === 'body' ? 'source.minus' : 'source.plus';
}

/**
 * Name of the element that is a clamp's contact; its amps are what that clamp carries.
 *
 * @example contactName('redSource') // => 'contact.redSource'
 */
export function contactName(clamp: ClampId): string {
  return `contact.${clamp}`;
}

/** The circuit of a rescue, with the casualty's body at 0 V. */
export function rescueCircuit(rescue: Rescue): Circuit {
  const bridges = (rescue.bridges ?? []).map(({ a, b, ohms }, i) => wire(`bridge.${i}`, a, b, ohms));
  return {
    ground: side('body'),
    elements: [...casualtyElements(rescue), ...sourceElements(rescue), ...bridges],
  };
}

function casualtyElements({
  casualty,
  load,
  casualtyAlternator,
  strapOff,
  joints,
  feeds = [],
  clamps,
}: Rescue): Element[] {
  const post = side(`battery${casualty.length - 1}+`);
  // A bad joint has all wiring of the machine behind it, and only the post itself before.
  const top = joints && joints.plusOhms > 0 ? side('main') : post;
  const elements: Element[] = casualty.map((battery, i) => ({
    kind: 'source',
    name: `casualty.battery${i}`,
    plus: side(`battery${i}+`),
    minus: side(`battery${i}-`),
    volts: battery.openVolts,
    ohms: battery.ohms,
  }));
  for (let i = 1; i < casualty.length; i++) {
    elements.push(wire(`casualty.link${i}`, side(`battery${i - 1}+`), side(`battery${i}-`), LINK_OHMS));
  }
  if (joints && joints.plusOhms > 0) elements.push(wire('casualty.plusJoint', post, top, joints.plusOhms));
  if (!strapOff) {
    const strapOhms = BODY_STRAP_OHMS + (joints?.minusOhms ?? 0);
    elements.push(wire('casualty.strap', side('battery0-'), side('body'), strapOhms));
  }
  elements.push(wire('casualty.postCable', side('post'), top, POST_CABLE_OHMS));
  const isOnStud = Object.values(clamps).some((terminal) => terminal?.kind === 'starter');
  if (load.kind === 'starter' || isOnStud)
    elements.push(wire('casualty.starterCable', top, side('starter'), STARTER_CABLE_OHMS));
  if (load.kind === 'starter') {
    elements.push({
      kind: 'source',
      name: 'starter',
      plus: side('starter'),
      minus: side('body'),
      volts: load.backEmfVolts,
      ohms: load.ohms,
    });
  } else if (load.kind === 'wake') {
    elements.push({ kind: 'load', name: 'wake', plus: top, minus: side('body'), amps: load.amps });
  }
  for (const { name, volts, ohms, maxAmps } of feeds) {
    const poles = { name: `feed.${name}`, plus: top, minus: side('body'), volts, ohms };
    elements.push(maxAmps === null ? { kind: 'source', ...poles } : { kind: 'regulated', ...poles, maxAmps });
  }
  if (casualtyAlternator) {
    elements.push(alternator('casualty.alternator', top, side('body'), casualtyAlternator));
  }
  return elements;
}

function sourceElements(rescue: Rescue): Element[] {
  const { source, leads, clamps, tempC } = rescue;
  if (!source || !leads) return [];
  const elements: Element[] = [];
  if (rescue.sourceOn) {
    elements.push({
      kind: 'source',
      name: 'source',
      plus: 'source.plus',
      minus: 'source.minus',
      volts: source.openVolts,
      ohms: source.ohms,
    });
    if (source.alternator) {
      elements.push(alternator('alternator', 'source.plus', 'source.minus', source.alternator));
    }
  }
  const ohms = conductorOhms(leads, tempC);
  elements.push(wire('lead.red', clampNode('redSource'), clampNode('redCasualty'), ohms));
  elements.push(wire('lead.black', clampNode('blackCasualty'), clampNode('blackSource'), ohms));
  const contactOhms = clampOhms(leads) * (rescue.clampWear ?? 1);
  for (const clamp of CLAMP_IDS) {
    const terminal = clamps[clamp];
    if (!terminal) continue;
    const onto = isSourceClamp(clamp) ? sourceTerminalNode(terminal) : terminalNode(terminal);
    elements.push(wire(contactName(clamp), clampNode(clamp), onto, contactOhms));
  }
  return elements;
}

function alternator(
  name: string,
  plus: NodeName,
  minus: NodeName,
  { volts, maxAmps }: { readonly volts: number; readonly maxAmps: number },
): Element {
  return { kind: 'regulated', name, plus, minus, volts, ohms: ALTERNATOR_OHMS, maxAmps };
}

function wire(name: string, a: NodeName, b: NodeName, ohms: number): Element {
  return { kind: 'resistor', name, a, b, ohms };
}
