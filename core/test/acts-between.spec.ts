import fc from 'fast-check';
import { CLAMP_IDS } from '../src/circuit/index.js';
import {
  act,
  actsBetween,
  CIRCUMSTANCES,
  type HookupState,
  NOTHING_CONNECTED,
  WRONG_METALS,
} from '../src/hookup/index.js';

const clamp = fc.option(fc.constantFrom('plus', 'minus', 'ground'), { nil: null });
const metal = fc.option(fc.constantFrom(...WRONG_METALS), { nil: undefined });
/** Any state that hands can have made: metal only under a clamp that is on. */
const state: fc.Arbitrary<HookupState> = fc
  .record({
    clamps: fc.record({
      redCasualty: clamp,
      redSource: clamp,
      blackSource: clamp,
      blackCasualty: clamp,
    }),
    metals: fc.record({
      redCasualty: metal,
      redSource: metal,
      blackSource: metal,
      blackCasualty: metal,
    }),
    donorRunning: fc.boolean(),
    packOn: fc.boolean(),
    pluggedIn: fc.boolean(),
    circumstances: fc.subarray([...CIRCUMSTANCES]),
  })
  .map(({ clamps, metals, ...rest }) => ({
    ...NOTHING_CONNECTED,
    ...rest,
    clamps,
    attachedInOrder: CLAMP_IDS.filter((id) => clamps[id] !== null),
    onto: Object.fromEntries(
      CLAMP_IDS.flatMap((id) => (clamps[id] !== null && metals[id] ? [[id, metals[id]]] : [])),
    ),
  }));
const seen = ({ clamps, onto, donorRunning, packOn, pluggedIn, circumstances = [] }: HookupState) => ({
  ...{ clamps, donorRunning, packOn, pluggedIn, circumstances: [...circumstances].sort() },
  onto: CLAMP_IDS.map((id) => onto?.[id]),
});

describe('actsBetween', () => {
  it('leads from any state to any other', () => {
    fc.assert(
      fc.property(state, state, (from, to) => {
        expect(seen(actsBetween(from, to).reduce(act, from))).toEqual(seen(to));
      }),
      { seed: 1 },
    );
  });

  it('does nothing where nothing changed', () => {
    fc.assert(
      fc.property(state, (same) => {
        expect(actsBetween(same, same)).toEqual([]);
      }),
      { seed: 2 },
    );
  });

  it('moves no clamp after a source was started, nor before one was stilled, and takes off before it puts on', () => {
    const rank = (kind: string, on: boolean): number => {
      if (kind === 'detach') return 1;
      if (kind === 'attach') return 2;
      if (kind === 'circumstance') return 3;
      return on ? 4 : 0;
    };
    fc.assert(
      fc.property(state, state, (from, to) => {
        const ranks = actsBetween(from, to).map((action) =>
          rank(
            action.kind,
            (action.kind === 'pack' && action.on) ||
              (action.kind === 'plug' && action.in) ||
              (action.kind === 'donor-engine' && action.running),
          ),
        );
        expect(ranks).toEqual([...ranks].sort((a, b) => a - b));
      }),
      { seed: 3 },
    );
  });

  it('takes a clamp off other metal and puts it where it belongs', () => {
    const from: HookupState = {
      ...NOTHING_CONNECTED,
      clamps: { ...NOTHING_CONNECTED.clamps, blackCasualty: 'ground' },
      attachedInOrder: ['blackCasualty'],
      onto: { blackCasualty: 'pipe' },
    };
    expect(actsBetween(from, { ...from, onto: {} })).toEqual([
      { kind: 'detach', clamp: 'blackCasualty' },
      { kind: 'attach', clamp: 'blackCasualty', pointId: 'ground' },
    ]);
  });
});
