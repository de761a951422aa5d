import { batteryOhms, type BatteryRating, cellsOf } from '../../battery/index.js';
import { type BatteryBelief, stateOf } from '../../belief/index.js';
import { type ModelBattery, modelBattery } from '../../circuit/index.js';
import type { HookupScene } from './state.js';

/**
 * A battery that rests below this has two stories, down to nothing: it is over-discharged and otherwise well, which lets little current in;
 * or cells of it are shorted while the others are sound, which lets in ten times as much. A meter at rest cannot tell them apart, V.
 */
export const TWO_STORIES_BELOW_VOLTS = 10.8;
/** A battery that reads so far backwards may be charged and fitted the wrong way round, V. */
const ROUND_BELOW_VOLTS = -3;
/** A sound cell of a lead-acid battery that is charged, V. */
const CELL_VOLTS = 2.1;

/**
 * The assumption of a figure beside the reading: shorted cells, or a battery as new and as charged as its reading allows. The latter lets
 * in more than the likely one; or a string of which one battery is old and the others as new.
 */
export const STORIES = ['strong-battery', 'cells-shorted', 'uneven-string'] as const;
export type Story = (typeof STORIES)[number];

/** A way that the scene may be without any reading being wrong. */
export interface PossibleScene {
  readonly scene: HookupScene;
  /** Null for the likeliest. */
  readonly story: Story | null;
}

/** The likeliest scene, and the worst for the person who joins something to it, where they differ. */
export function storiesOf(scene: HookupScene): readonly PossibleScene[] {
  const { beliefs, models } = scene.batteries;
  const sceneWith = (story: Story, worse: readonly (ModelBattery | null)[]): PossibleScene[] =>
    worse.every((model) => model === null)
      ? []
      : [
          {
            scene: {
              ...scene,
              batteries: { ...scene.batteries, models: models.map((model, i) => worse[i] ?? model) },
            },
            story,
          },
        ];
  return [
    { scene, story: null },
    ...sceneWith(
      'strong-battery',
      beliefs.map((belief, i) => strongModel(belief, models[i]!, scene.tempC)),
    ),
    ...sceneWith(
      'cells-shorted',
      beliefs.map((belief, i) => shortedModel(belief, models[i]!, scene.tempC)),
    ),
    ...beliefs.flatMap((belief, old) => {
      // A battery that still has charge has too few ohms to take more than its share.
      if (beliefs.length < 2 || belief.overDischargedVolts === undefined) return [];
      return sceneWith(
        'uneven-string',
        beliefs.map((fellow, i) =>
          i === old
            ? oldModel(belief, scene.tempC)
            : (strongModel(fellow, models[i]!, scene.tempC) ?? models[i]!),
        ),
      );
    }),
  ];
}

/** The battery at the end of its life and of its reading. */
const oldModel = (belief: BatteryBelief, tempC: number): ModelBattery =>
  modelBattery(belief.rating, { ...stateOf(belief, tempC), soc: belief.socLow, ageing: OLD_AGEING });
/** Resistance of a spent battery that still stands in a string, times new: two fifths of its strength are left. */
const OLD_AGEING = 5;

/**
 * The battery new and at the full end of what its reading leaves open; null where that is no other. One that reads backwards may be charged
 * and fitted the wrong way round: as many of its cells stand against the source as its volts tell, charged and sound.
 */
function strongModel(
  { rating, socHigh, overDischargedVolts }: BatteryBelief,
  model: ModelBattery,
  tempC: number,
): ModelBattery | null {
  if (model.openVolts <= ROUND_BELOW_VOLTS) {
    const ohms = ohmsOfSound(rating, -model.openVolts, tempC);
    return ohms < model.ohms ? { ...model, ohms } : null;
  }
  const ohms = batteryOhms(rating, {
    soc: socHigh,
    tempC,
    ageing: 1,
    ...(overDischargedVolts !== undefined && { overDischargedVolts }),
  });
  return ohms < model.ohms ? { ...model, ohms } : null;
}

/** The battery with as many shorted cells as its volts allow and the others new and charged; null where its volts tell no such story. */
function shortedModel(
  { rating, overDischargedVolts: volts }: BatteryBelief,
  model: ModelBattery,
  tempC: number,
): ModelBattery | null {
  if (volts === undefined || volts < 0 || volts >= TWO_STORIES_BELOW_VOLTS) return null;
  const ohms = ohmsOfSound(rating, volts, tempC);
  return ohms < model.ohms ? { openVolts: volts, ohms } : null;
}

/** Ohms of as many new and charged cells as make these volts: one at least, and no more than the battery has. */
function ohmsOfSound(rating: BatteryRating, volts: number, tempC: number): number {
  const cells = cellsOf(rating.chemistry);
  const sound = Math.min(cells, Math.max(1, Math.round(volts / CELL_VOLTS)));
  return batteryOhms(rating, { soc: 1, tempC, ageing: 1 }) * (sound / cells);
}
