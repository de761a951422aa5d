import type { ClampId } from '@voltrek/core/circuit';
import { hookupOrder, type HookupState, NOTHING_CONNECTED, act } from '@voltrek/core/hookup';
import type { Machine } from '@voltrek/core/machine';
import { casualtyBatteries } from '@voltrek/core/belief';
import { rankOptions } from '@voltrek/core/plan';
import { DEFAULT_RULES } from '@voltrek/core/rules';
import { CAR, KIT, VAN } from '../../../testing/fixtures';
import { AMPS_TAG, CIRCUIT_HEIGHT, CIRCUIT_WIDTH, type CircuitDrawing, overlaps } from './drawing';
import { layoutCircuit } from './circuit-layout';
import { TAG } from './vehicle';

const TEMP_C = -4;

function draw(
  machine: Machine,
  optionId: string,
  steps: number,
  { isCranking = false, takeOff }: { isCranking?: boolean; takeOff?: ClampId } = {},
): CircuitDrawing {
  const batteries = casualtyBatteries(machine, [11.8], TEMP_C);
  const option = rankOptions(machine, KIT, batteries, TEMP_C, DEFAULT_RULES).find(
    (r) => r.option.id === optionId,
  )!.option;
  const order = hookupOrder(machine, VAN, option, 0.1, DEFAULT_RULES);
  const hookup = order
    .slice(0, steps)
    .reduce<HookupState>((s, step) => act(s, step.action), NOTHING_CONNECTED);
  return layoutCircuit({
    machine,
    donor: VAN,
    scene: { machine, donor: VAN, option, batteries, tempC: TEMP_C, enclosed: false, casualtyRuns: false },
    hookup,
    isCranking,
    step: takeOff ? { ...order[0]!, action: { kind: 'detach', clamp: takeOff } } : (order[steps] ?? null),
    showPins: false,
    machineName: 'casualty',
  });
}

describe('layoutCircuit', () => {
  it('draws both vehicles for a donor, and the casualty with a pack for a pack', () => {
    expect(draw(CAR, 'donor+heavy', 0).vehicles.map((v) => v.name)).toEqual(['donor', 'casualty']);
    const pack = draw(CAR, 'lithium@12', 0);
    expect(pack.vehicles.map((v) => v.name)).toEqual(['casualty']);
    expect(pack.pack?.isOn).toBeFalse();
  });

  it('shows the clamps as they go on, a free end where a lead hangs, and both leads when done', () => {
    expect(draw(CAR, 'donor+heavy', 1).clamps).toEqual([]);
    const one = draw(CAR, 'donor+heavy', 2).clamps;
    expect(one.map((c) => [c.clamp, c.isFree])).toEqual([
      ['redCasualty', false],
      ['redSource', true],
    ]);
    const all = draw(CAR, 'donor+heavy', 5);
    expect(all.clamps.every((c) => !c.isFree)).toBeTrue();
    expect(all.leads.length).toBe(2);
  });

  it('carries the same current in red and black once the loop is closed, and none before', () => {
    const [red, black] = draw(CAR, 'donor+heavy', 5).leads;
    expect(red!.amps).toBeGreaterThan(1);
    expect(red!.amps).toBeCloseTo(black!.amps, 3);
    for (const lead of draw(CAR, 'donor+heavy', 4).leads) expect(lead.amps).toBeLessThan(0.01);
    // Out through the red, back through the black.
    expect([red!.isForth, black!.isForth]).toEqual([true, false]);
    expect(red!.warmsK).withContext('nothing cranks').toBe(0);
  });

  it('shows the amps and volts of the crank while the starter turns', () => {
    const volts = (drawing: CircuitDrawing): number[] => drawing.volts.map((v) => parseFloat(v.text));
    // The sixth step starts the donor.
    const still = draw(CAR, 'donor+heavy', 6);
    const cranking = draw(CAR, 'donor+heavy', 6, { isCranking: true });
    const { crank } = rankOptions(
      CAR,
      KIT,
      casualtyBatteries(CAR, [11.8], TEMP_C),
      TEMP_C,
      DEFAULT_RULES,
    ).find((r) => r.option.id === 'donor+heavy')!;
    expect(cranking.leads[0]!.amps).toBeGreaterThan(3 * still.leads[0]!.amps);
    expect(cranking.leads[0]!.warmsK).toBeGreaterThan(0);
    expect(volts(cranking)[0]!).toBeLessThan(volts(still)[0]! - 0.5);
    // Nothing has been charged yet: what the ranking promised.
    expect(volts(cranking)[0]!).toBeCloseTo(crank!.postVolts, 1);
    expect(cranking.leads[0]!.amps).toBeCloseTo(crank!.sourceAmps, -1);
  });

  it('points at the next place, inside the drawing', () => {
    for (const steps of [1, 2, 3, 4]) {
      const { target } = draw(CAR, 'donor+heavy', steps);
      expect(target).not.toBeNull();
      expect(target!.flag.x).toBeGreaterThanOrEqual(0);
      expect(target!.flag.x + 106).toBeLessThanOrEqual(CIRCUIT_WIDTH);
      expect(target!.flag.y + 32).toBeLessThanOrEqual(CIRCUIT_HEIGHT);
    }
    expect(draw(CAR, 'donor+heavy', 5).target).toBeNull();
  });

  it('covers no amps, no volts and no clamp with the flag of a clamp that is to come off', () => {
    const FLAG = { width: 106, height: 32 };
    let flags = 0;
    // The plus is a post in the bay, and the battery in the boot: the drawing is as long as the car.
    const [plus, minus, ground] = CAR.points;
    const rect = { ...CAR.batteries[0]!.rect, xMm: 1300, yMm: 3500 };
    for (const xMm of [200, 800, 1400])
      for (const yMm of [150, 500, 1200]) {
        const machine: Machine = {
          ...CAR,
          batteries: [{ ...CAR.batteries[0]!, rect }],
          points: [
            { ...plus!, xMm: 1350, yMm: 3590 },
            { ...minus!, xMm: 1490, yMm: 3590 },
            {
              id: 'post',
              kind: 'red-post',
              label: 'Red post',
              xMm: 1700 - xMm,
              yMm: 600,
              steps: ['Look.'],
            },
            { ...ground!, xMm, yMm },
          ],
        };
        for (const takeOff of draw(machine, 'donor+heavy', 5).clamps) {
          const { target, leads, volts, clamps } = draw(machine, 'donor+heavy', 5, {
            takeOff: takeOff.clamp,
          });
          flags++;
          const about = `${takeOff.clamp}, ground point at ${xMm}, ${yMm}`;
          const tags = leads.flatMap(({ tag }) => (tag ? [tag] : []));
          expect(tags.length).withContext(about).toBe(2);
          for (const tag of tags)
            expect(overlaps(target!.flag, FLAG, tag, AMPS_TAG))
              .withContext(about)
              .toBeFalse();
          for (const { at } of volts)
            expect(overlaps(target!.flag, FLAG, at, TAG))
              .withContext(about)
              .toBeFalse();
          for (const { at } of clamps)
            expect(overlaps(target!.flag, FLAG, at, { width: 0, height: 0 }))
              .withContext(about)
              .toBeFalse();
        }
      }
    expect(flags).toBe(36);
  });

  it('numbers every point, none upon another and all inside', () => {
    const { pins } = layoutCircuit({
      machine: CAR,
      donor: null,
      scene: null,
      hookup: NOTHING_CONNECTED,
      isCranking: false,
      step: null,
      showPins: true,
      machineName: 'casualty',
    });
    expect(pins.map((p) => p.number)).toEqual(CAR.points.map((_, i) => i + 1));
    pins.forEach((a, i) => {
      expect(a.at.x).toBeGreaterThan(0);
      expect(a.at.y).toBeLessThan(CIRCUIT_HEIGHT);
      pins.slice(i + 1).forEach((b) => {
        expect(Math.hypot(a.at.x - b.at.x, a.at.y - b.at.y)).toBeGreaterThan(20);
      });
    });
  });
});
