import {
  actByHand,
  type HandAction,
  type HookupScene,
  type HookupState,
  NOTHING_CONNECTED,
} from '../src/hookup/index.js';
import type { Machine } from '../src/machine/index.js';
import { casualtyBatteries } from '../src/belief/index.js';
import { type SourceOption, sourceOptions } from '../src/plan/index.js';
import { DEFAULT_RULES, type HouseRules } from '../src/rules/index.js';
import { CAR, KIT } from './fixtures.js';

/** The cold that every scene of these tests is in, degC. */
export const SCENE_TEMP_C = -4;
/** House rules that let every source of the kit be used. */
export const ALLOWING: HouseRules = { ...DEFAULT_RULES, hobbyLithium: 'allowed' };

/** A hook-up of this option to a machine with these rest volts; a car lends where a donor does. */
export function sceneFor(
  machine: Machine,
  option: SourceOption,
  rest: readonly number[],
  more: Partial<HookupScene> = {},
): HookupScene {
  return {
    machine,
    donor: option.sourceKind === 'donor' ? CAR : null,
    option,
    batteries: casualtyBatteries(machine, rest, SCENE_TEMP_C),
    tempC: SCENE_TEMP_C,
    enclosed: false,
    casualtyRuns: false,
    ...more,
  };
}

/** The option with this id, whether it fits or not. */
export function optionNamed(machine: Machine, id: string, rest: readonly number[], kit = KIT): SourceOption {
  const batteries = casualtyBatteries(machine, rest, SCENE_TEMP_C);
  return sourceOptions(machine, kit, batteries, SCENE_TEMP_C, ALLOWING).find((o) => o.id === id)!;
}

/** The state after these acts, from nothing. */
export const run = (machine: Machine, actions: readonly HandAction[]): HookupState =>
  actions.reduce<HookupState>((s, a) => actByHand(s, a, machine), NOTHING_CONNECTED);
