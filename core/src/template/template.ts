import type { BatteryRating } from '../battery/index.js';
import type { Engine } from '../engine/index.js';
import { templateId } from './class-entry.js';
import { type LikelyPlace, placesOf } from './likely-places.js';
import { type ClassCaution, type ClassNever, TEMPLATE_CODES, type TemplateWords } from './template-words.js';
import type {
  Gearbox,
  Machine,
  MachineBattery,
  MachineClass,
  MachinePoint,
  TerminalLayout,
} from '../machine/index.js';
import {
  boatShape,
  carShape,
  deckShape,
  motorcycleShape,
  type Shape,
  truckShape,
  vanShape,
} from './shapes.js';

/** The findings of a technician about a machine that the atlas does not know. */
export interface MachineFinding extends Pick<
  Machine,
  'id' | 'maker' | 'model' | 'machineClass' | 'gearbox' | 'systemVolts' | 'engine'
> {
  /** One of the class's likely places. */
  readonly placeId: string;
  readonly rating: BatteryRating;
  readonly layout: TerminalLayout;
  /** There is a marked positive post away from the battery. */
  readonly redPost: boolean;
}

interface Typical {
  readonly shape: () => Shape;
  readonly batteryMm: readonly [width: number, length: number];
  readonly rating: BatteryRating;
  readonly engine: Engine | null;
  readonly systemVolts: 12 | 24;
  readonly gearbox: Gearbox;
  readonly cautions: readonly ClassCaution[];
  readonly never: readonly ClassNever[];
}

const battery = (
  chemistry: BatteryRating['chemistry'],
  capacityAh: number,
  ccaAmps: number,
  ccaStandard: BatteryRating['ccaStandard'] = 'EN',
): BatteryRating => ({ chemistry, capacityAh, ccaAmps, ccaStandard });
const motor = (
  fuel: Engine['fuel'],
  displacementL: number,
  cylinders: number,
  systemVolts: 12 | 24 = 12,
): Engine => ({ fuel, displacementL, cylinders, systemVolts });

const common = { gearbox: 'none', systemVolts: 12, cautions: [], never: [] } as const;

/** The middle of each class, for a machine that nobody has looked at yet. */
const TYPICAL: Record<MachineClass, Typical> = {
  car: {
    ...common,
    shape: () => carShape(1780, 4250),
    batteryMm: [240, 175],
    rating: battery('flooded', 60, 540),
    engine: motor('petrol', 1.6, 4),
    gearbox: 'manual',
  },
  van: {
    ...common,
    shape: () => vanShape(1980, 5200),
    batteryMm: [180, 310],
    rating: battery('efb', 80, 760),
    engine: motor('diesel', 2.2, 4),
    gearbox: 'manual',
  },
  truck: {
    ...common,
    shape: () => truckShape(2500, 8000),
    batteryMm: [240, 520],
    rating: battery('flooded', 170, 1000),
    engine: motor('diesel', 8, 6, 24),
    systemVolts: 24,
    gearbox: 'manual',
    cautions: ['middle-joint-live'],
    never: ['both-on-one'],
  },
  plant: {
    ...common,
    shape: () => deckShape(2200, 5000, 2800, true),
    batteryMm: [200, 330],
    rating: battery('flooded', 110, 850),
    engine: motor('diesel', 4.5, 4),
    cautions: ['secure-first'],
  },
  motorcycle: {
    ...common,
    shape: () => motorcycleShape(820, 2150),
    batteryMm: [90, 140],
    rating: battery('agm', 10, 150, 'SAE'),
    engine: motor('petrol', 0.6, 2),
    gearbox: 'manual',
    cautions: ['chock-it'],
    never: ['running-car'],
  },
  'ride-on': {
    ...common,
    shape: () => deckShape(1100, 1950, 1150, true),
    batteryMm: [130, 190],
    rating: battery('flooded', 24, 240, 'SAE'),
    engine: motor('petrol', 0.5, 1),
    never: ['bridge-seat-switch'],
  },
  genset: {
    ...common,
    shape: () => deckShape(1300, 2600, 1600, false),
    batteryMm: [180, 330],
    rating: battery('flooded', 100, 720),
    engine: motor('diesel', 3, 4),
    cautions: ['starts-by-itself'],
  },
  boat: {
    ...common,
    shape: () => boatShape(2300, 6200),
    batteryMm: [190, 280],
    rating: battery('flooded', 80, 640, 'SAE'),
    engine: motor('petrol', 1.2, 4),
    cautions: ['vapour-in-bilge'],
  },
  hybrid: {
    ...common,
    shape: () => carShape(1800, 4400),
    batteryMm: [230, 175],
    rating: battery('agm', 45, 380),
    engine: null,
    gearbox: 'automatic',
    cautions: ['high-voltage'],
    never: ['lend-from-it'],
  },
  ev: {
    ...common,
    shape: () => carShape(1830, 4350),
    batteryMm: [230, 175],
    rating: battery('agm', 50, 430),
    engine: null,
    cautions: ['high-voltage'],
    never: ['donor-runs'],
  },
};

/**
 * The typical machine of a class: an unknown machine starts from it.
 *
 * @example typicalOf('motorcycle').rating.capacityAh // => 10
 */
export function typicalOf(
  machineClass: MachineClass,
): Pick<MachineFinding, 'rating' | 'engine' | 'systemVolts' | 'gearbox'> {
  const { rating, engine, systemVolts, gearbox } = TYPICAL[machineClass];
  return { rating, engine, systemVolts, gearbox };
}

/**
 * An entry that stands for an unknown machine of a class: its typical body, and the battery in its likeliest place.
 *
 * @param words of its points and cautions; left out: their codes
 */
export function templateOf(machineClass: MachineClass, words: TemplateWords = TEMPLATE_CODES): Machine {
  const finding: MachineFinding = {
    id: templateId(machineClass),
    maker: 'Unknown',
    model: machineClass,
    machineClass,
    ...typicalOf(machineClass),
    placeId: placesOf(machineClass)[0]!.id,
    layout: 'positive-left',
    redPost: false,
  };
  return machineFrom(finding, words);
}

/**
 * The atlas entry that a finding makes: the class's typical body with the battery where it was found.
 *
 * @param words of its points and cautions, in the finder's language
 * @throws RangeError when the place is none of the class's
 */
export function machineFrom(finding: MachineFinding, words: TemplateWords): Machine {
  const typical = TYPICAL[finding.machineClass];
  const place = placesOf(finding.machineClass).find((p) => p.id === finding.placeId);
  if (!place) throw new RangeError(`${finding.machineClass}: no place ${finding.placeId}`);
  const shape = typical.shape();
  const batteries = Array.from({ length: finding.systemVolts / 12 }, (_, i) =>
    batteryOf(finding, place, words.place[place.id].name, shape, typical.batteryMm, i),
  );
  return {
    id: finding.id,
    maker: finding.maker,
    model: finding.model,
    machineClass: finding.machineClass,
    gearbox: finding.gearbox,
    systemVolts: finding.systemVolts,
    ...shape,
    zones: [],
    batteries,
    points: pointsOf(finding, place, shape, batteries, words),
    engine: finding.engine,
    smartAlternator: false,
    resets: [words.clock],
    cautions: typical.cautions.map((code) => words.caution[code]),
    never: typical.never.map((code) => words.never[code]),
  };
}

/** Batteries of a string lie one behind the other with this much between, mm. */
const BETWEEN_BATTERIES_MM = 40;

function batteryOf(
  { rating, layout }: MachineFinding,
  place: LikelyPlace,
  placeName: string,
  { widthMm, lengthMm, side }: Shape,
  [batteryWidth, batteryLength]: Typical['batteryMm'],
  index: number,
): MachineBattery {
  const [across, along] = place.at;
  const held = (middle: number, size: number, most: number): number =>
    Math.round(Math.min(Math.max(middle - size / 2, 30), most - size - 30));
  return {
    rating,
    layout,
    place: placeName,
    closedIn: place.closedIn,
    ventHose: place.ventHose,
    topMm: Math.round(place.up * (side?.heightMm ?? 1500)),
    rect: {
      xMm: held(across * widthMm, batteryWidth, widthMm),
      yMm: held(along * lengthMm, batteryLength, lengthMm) + index * (batteryLength + BETWEEN_BATTERIES_MM),
      widthMm: batteryWidth,
      lengthMm: batteryLength,
    },
  };
}

function pointsOf(
  finding: MachineFinding,
  place: LikelyPlace,
  { widthMm, lengthMm }: Shape,
  batteries: readonly MachineBattery[],
  words: TemplateWords,
): MachinePoint[] {
  const post: MachinePoint = {
    id: 'post',
    kind: 'red-post',
    label: words.redPost,
    // A motorcycle is narrow: its post is behind a side panel.
    xMm: Math.round(widthMm * (finding.machineClass === 'motorcycle' ? 0.42 : 0.76)),
    yMm: Math.round(lengthMm * (finding.machineClass === 'motorcycle' ? 0.5 : 0.17)),
    steps: [words.redPostStep],
  };
  return [
    ...(finding.redPost ? [post] : []),
    ...batteries.flatMap((b, i) => terminalsOf(b, i, batteries.length, stepsTo(place, words), words)),
    {
      id: 'ground',
      kind: 'ground-point',
      label: words.ground,
      xMm: Math.round(widthMm * 0.55),
      yMm: Math.round(lengthMm * (batteries[0]!.rect.yMm < lengthMm / 2 ? 0.34 : 0.24)),
      steps: [words.groundStep],
    },
  ];
}

const stepsTo = ({ id, steps }: LikelyPlace, { place }: TemplateWords): string[] => {
  const { first, then = '' } = place[id];
  return steps === 2 ? [first, then] : [first];
};

function terminalsOf(
  b: MachineBattery,
  i: number,
  count: number,
  steps: readonly string[],
  words: TemplateWords,
): MachinePoint[] {
  const label = (sign: '+' | '-'): string =>
    count === 1 ? words.battery({ sign }) : words.batteryOf({ number: i + 1, sign });
  const { xMm, yMm, widthMm, lengthMm } = b.rect;
  const isLeft = b.layout === 'positive-left';
  const at = (share: number) => ({
    xMm: Math.round(xMm + widthMm * share),
    yMm: Math.round(yMm + lengthMm / 2),
    heightMm: b.topMm,
    steps,
    battery: i,
  });
  const suffix = i === 0 ? '' : String(i + 1);
  return [
    { id: `battery-plus${suffix}`, kind: 'battery-positive', label: label('+'), ...at(isLeft ? 0.2 : 0.8) },
    { id: `battery-minus${suffix}`, kind: 'battery-negative', label: label('-'), ...at(isLeft ? 0.8 : 0.2) },
  ];
}
