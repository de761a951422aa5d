import type { ClampId } from '../src/circuit/index.js';
import type {
  Circumstance,
  HandAction,
  Hazard,
  HazardCode,
  HookupScene,
  Severity,
  WrongMetal,
} from '../src/hookup/index.js';
import type { Machine } from '../src/machine/index.js';
import type { KitItem } from '../src/sources/index.js';
import { CAR, KIT } from './fixtures.js';
import { optionNamed, run } from './scenes.js';

/** A slip that hands make, or that lies in how things stand, and what the circuit must say of it. */
export interface Mistake {
  readonly name: string;
  readonly machine?: Machine;
  readonly source?: string;
  readonly rest?: readonly number[];
  readonly kit?: readonly KitItem[];
  readonly more?: Partial<HookupScene>;
  readonly before: readonly HandAction[];
  readonly slip: HandAction;
  readonly code: HazardCode;
  /** Exactly so severe. Left out: severe, or at least {@link least}. */
  readonly severity?: Severity;
  /** Least severity expected; `note` for what is only told. */
  readonly least?: 'note' | 'watch';
  /** Amps that the reason must tell, between these. */
  readonly amps?: readonly [number, number];
  readonly volts?: readonly [number, number];
}

export const on = (clamp: ClampId, pointId: string, onto?: WrongMetal): HandAction => ({
  kind: 'attach',
  clamp,
  pointId,
  ...(onto && { onto }),
});
export const off = (clamp: ClampId): HandAction => ({ kind: 'detach', clamp });
export const pack = (isOn: boolean): HandAction => ({ kind: 'pack', on: isOn });
export const confirm = (what: 'all-off' | 'guard-lamp' | 'negative-off'): HandAction => ({
  kind: 'confirm',
  what,
});
export const is = (what: Circumstance): HandAction => ({ kind: 'circumstance', what, on: true });
export const isNot = (what: Circumstance): HandAction => ({ kind: 'circumstance', what, on: false });
export const lay = (clamp: ClampId): HandAction => ({ kind: 'lay', clamp });
export const bridge = (pointId: string): HandAction => ({ kind: 'bridge', pointId });
export const engine: HandAction = { kind: 'donor-engine', running: true };
export const plug: HandAction = { kind: 'plug', in: true };
export const crank: HandAction = { kind: 'crank' };

/** The scene of the mistake: the machine, the readings of its batteries, the source in hand, and the hook-up as far as it has come. */
export function placeOf({ machine = CAR, source = 'donor+heavy', rest, kit = KIT, before }: Mistake) {
  const readings = rest ?? (machine.batteries.length > 1 ? [11.9, 11.9] : [11.8]);
  const option = optionNamed(machine, source, readings, kit);
  expect(option).withContext(source).toBeDefined();
  return { machine, kit, readings, option, hookup: run(machine, before) };
}

/** The finding has it, as severe as it is, with its figures. */
export function expectCaught(
  { code, severity, least, amps, volts }: Mistake,
  found: readonly Hazard[],
): void {
  const told = JSON.stringify(found);
  const caught = found.find((hazard) => hazard.code === code);
  expect(caught).withContext(told).toBeDefined();
  if (severity ?? !least)
    expect(caught!.severity)
      .withContext(told)
      .toBe(severity ?? 'severe');
  if (least === 'watch') expect(caught!.severity).not.toBe('note');
  for (const [figure, range] of [
    [caught!.amps, amps],
    [caught!.volts, volts],
  ] as const)
    if (range) {
      expect(figure).withContext(told).toBeGreaterThanOrEqual(range[0]);
      expect(figure).withContext(told).toBeLessThanOrEqual(range[1]);
    }
}
