import { type BatteryRating, type BatteryState, batteryOpenVolts } from '../src/battery/index.js';
import { act, type PracticeAction, startCase, type World } from '../src/practice/index.js';
import type { Machine } from '../src/machine/index.js';
import { CAR, KIT } from './fixtures.js';
import { KNOWN_MISTAKES, type Mistake } from './known-mistakes.js';
import { ALLOWING, optionNamed, run, SCENE_TEMP_C } from './scenes.js';

/** The battery that truly rests at these volts. */
function restingAt(rating: BatteryRating, volts: number): BatteryState {
  const at = (soc: number): BatteryState => ({ soc, tempC: SCENE_TEMP_C, ageing: 1 });
  if (volts < 0) return { ...restingAt(rating, -volts), reversed: true };
  if (volts < batteryOpenVolts(rating, at(0))) return { ...at(0), overDischargedVolts: volts };
  let [low, high] = [0, 1];
  for (let i = 0; i < 40; i++) {
    const middle = (low + high) / 2;
    if (batteryOpenVolts(rating, at(middle)) < volts) low = middle;
    else high = middle;
  }
  return at(low);
}

const usualRest = (machine: Machine): readonly number[] =>
  machine.batteries.length > 1 ? [11.9, 11.9] : [11.8];

/** A case in which the hands have come as far as the mistake. */
function worldBefore({
  machine = CAR,
  source = 'donor+heavy',
  rest,
  kit = KIT,
  more,
  before,
}: Mistake): World {
  const readings = rest ?? usualRest(machine);
  const started = startCase('stop-1');
  const { rating } = machine.batteries[0]!;
  const hidden = {
    ...started.hidden,
    batteries: readings.map((volts) => restingAt(rating, volts)),
    hurt: 0,
    linkOhms: 0,
  };
  const profile = {
    ...started.practice.profile,
    rating,
    systemVolts: machine.systemVolts,
    tempC: SCENE_TEMP_C,
  };
  return {
    ...started,
    practice: {
      ...started.practice,
      ...{ machine, kit, profile, hidden, rules: ALLOWING, tempC: SCENE_TEMP_C },
      donor: more?.donor ?? CAR,
    },
    hidden,
    option: optionNamed(machine, source, readings, kit),
    hookup: run(machine, before),
    runs: more?.casualtyRuns ?? false,
  };
}

const doing = ({ slip }: Mistake): PracticeAction =>
  slip.kind === 'crank' ? { kind: 'key' } : { kind: 'hands', action: slip };

describe('a known mistake, done in Practice', () => {
  // No case of Practice lies in a closed room.
  const mistakes = KNOWN_MISTAKES.filter(({ more }) => !more?.enclosed);

  for (const mistake of mistakes)
    it(`shows what it does: ${mistake.name}`, () => {
      const after = act(worldBefore(mistake), doing(mistake));
      const { hazards } = after.log.at(-1)!;
      const shown = hazards.find(({ code }) => code === mistake.code);
      expect(shown).withContext(JSON.stringify(hazards)).toBeDefined();
      if (!mistake.least) expect(shown?.severity).withContext(JSON.stringify(hazards)).toBe('severe');
      if (mistake.least === 'watch') expect(shown?.severity).not.toBe('note');
    });
});
