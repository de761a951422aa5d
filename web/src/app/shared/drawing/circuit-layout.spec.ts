import { hookupOrder, type HookupState, NOTHING_CONNECTED, act } from '@voltrek/core/hookup';
import type { Machine } from '@voltrek/core/machine';
import { casualtyBatteries, rankOptions } from '@voltrek/core/plan';
import { DEFAULT_RULES } from '@voltrek/core/rules';
import { CAR, KIT, VAN } from '../../../testing/fixtures';
import { CIRCUIT_HEIGHT, CIRCUIT_WIDTH, type CircuitDrawing } from './drawing';
import { layoutCircuit } from './circuit-layout';

const TEMP_C = -4;

function draw(machine: Machine, optionId: string, steps: number, isCranking = false): CircuitDrawing {
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
    step: order[steps] ?? null,
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
    const cranking = draw(CAR, 'donor+heavy', 6, true);
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
