import { type BatteryRating, type BatteryState, batteryOpenVolts } from '../src/battery/index.js';
import { act, type PracticeAction, startCase, type World } from '../src/practice/index.js';
import { CAR } from './fixtures.js';
import { expectCaught, type Mistake, placeOf } from './mistake.js';
import { MISTAKES_OF_HANDS } from './mistakes-of-hands.js';
import { ALLOWING, SCENE_TEMP_C } from './scenes.js';

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

/** A case in which the hands have come as far as the mistake. */
function worldBefore(mistake: Mistake): World {
  const { machine, kit, readings, option, hookup } = placeOf(mistake);
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
      donor: mistake.more?.donor ?? CAR,
    },
    ...{ hidden, option, hookup },
    runs: mistake.more?.casualtyRuns ?? false,
  };
}

const doing = ({ slip }: Mistake): PracticeAction =>
  slip.kind === 'crank' ? { kind: 'key' } : { kind: 'hands', action: slip };

describe('a known mistake, done in Practice', () => {
  // No case of Practice lies in a closed room.
  const mistakes = MISTAKES_OF_HANDS.filter(({ more }) => !more?.enclosed);

  for (const mistake of mistakes)
    it(`shows what it does: ${mistake.name}`, () => {
      const after = act(worldBefore(mistake), doing(mistake));
      expectCaught(mistake, after.log.at(-1)!.hazards);
    });
});
