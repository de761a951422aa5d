import type { BatteryRating, Chemistry } from '../src/battery/index.js';
import {
  dataFaults,
  geometryFaults,
  isOtherToHands,
  type Machine,
  MACHINE_CLASSES,
} from '../src/machine/index.js';
import {
  cluesFor,
  isTemplate,
  machineFrom,
  placesOf,
  rankPlaces,
  TEMPLATE_CODES,
  templateId,
  templateOf,
  typicalOf,
} from '../src/template/index.js';
import { CAR, TRUCK } from './fixtures.js';

const codes = (machine: Machine): string[] =>
  [...geometryFaults(machine), ...dataFaults(machine)].map((f) => `${f.path}: ${f.code}`);

describe('isOtherToHands', () => {
  const [first, second, ...rest] = CAR.points;
  const other = (part: Partial<Machine>): boolean => isOtherToHands(CAR, { ...CAR, ...part });

  it('is what moves a clamp or turns it round', () => {
    expect(other({ earth: 'positive' })).toBeTrue();
    expect(other({ systemVolts: 24 })).toBeTrue();
    expect(other({ engine: null })).toBeTrue();
    expect(other({ batteries: [] })).toBeTrue();
    expect(other({ points: [second!, ...rest] })).toBeTrue();
    expect(other({ points: [{ ...first!, yMm: first!.yMm + 1 }, second!, ...rest] })).toBeTrue();
    expect(other({ points: [{ ...first!, kind: 'ground-point' }, second!, ...rest] })).toBeTrue();
    expect(
      isOtherToHands(TRUCK, {
        ...TRUCK,
        points: TRUCK.points.map((p) => ({ ...p, battery: 1 - (p.battery ?? 0) })),
      }),
    ).toBeTrue();
  });

  it('is no better word, no point more, no other order', () => {
    expect(other({})).toBeFalse();
    expect(other({ cautions: ['The fan starts by itself.'], maker: 'Other' })).toBeFalse();
    expect(
      other({ points: [{ ...first!, label: 'the post under the flap' }, second!, ...rest] }),
    ).toBeFalse();
    expect(other({ points: [...rest, second!, first!, { ...first!, id: 'found', xMm: 10 }] })).toBeFalse();
  });
});

describe('geometryFaults', () => {
  it('finds nothing in sound machines', () => {
    expect(codes(CAR)).toEqual([]);
    expect(codes(TRUCK)).toEqual([]);
  });

  it('names what cannot be so, and where', () => {
    const corner = (xMm: number, yMm: number) => ({ xMm, yMm });
    expect(codes({ ...CAR, outline: CAR.outline.slice(0, 2) })).toContain('outline: outline-open');
    const bowTie = [corner(0, 0), corner(1700, 4000), corner(1700, 0), corner(0, 3000)];
    expect(codes({ ...CAR, outline: bowTie })).toContain('outline: outline-crosses-itself');
    expect(codes({ ...CAR, widthMm: 900 })).toContain('outline: outline-outside-size');
    const far = { ...CAR.points[2]!, xMm: 2600 };
    expect(codes({ ...CAR, points: [...CAR.points.slice(0, 2), far] })).toEqual(['points[2]: point-outside']);
    const moved = { ...CAR.batteries[0]!, rect: { ...CAR.batteries[0]!.rect, yMm: 3950 } };
    expect(codes({ ...CAR, batteries: [moved] })).toEqual(['batteries[0]: battery-outside']);
    const same = TRUCK.batteries[0]!;
    expect(codes({ ...TRUCK, batteries: [same, same] })).toEqual(['batteries[1]: batteries-overlap']);
    expect(codes({ ...CAR, systemVolts: 24 })).toEqual([
      'batteries: string-does-not-match-volts',
      'engine.systemVolts: engine-does-not-match-volts',
    ]);
    expect(codes({ ...CAR, points: [...CAR.points, CAR.points[0]!] })).toEqual(['points[3]: same-id']);
    expect(codes({ ...CAR, points: [...CAR.points, { ...CAR.points[0]!, id: 'x', battery: 3 }] })).toEqual([
      'points[3]: unknown-battery',
    ]);
    const wire = { ...CAR.points[2]!, id: 'wire', kind: 'latch-wire-positive' as const };
    expect(codes({ ...CAR, points: [...CAR.points, wire] })).toEqual(['points: latch-wire-alone']);
    expect(codes({ ...CAR, points: [CAR.points[0]!] })).toEqual(['points: no-black-point']);
    const black = CAR.points.filter((p) => p.kind === 'ground-point' || p.kind === 'battery-negative');
    expect(codes({ ...CAR, points: black })).toEqual(['points: no-red-point']);
    expect(codes({ ...CAR, machineClass: 'ev' })).toEqual(['engine: engine-of-an-electric']);
    const [first, second] = TRUCK.batteries;
    const other = (rating: Partial<BatteryRating>) => ({
      ...second!,
      rating: { ...second!.rating, ...rating },
    });
    expect(codes({ ...TRUCK, batteries: [first!, other({ chemistry: 'agm' })] })).toEqual([
      'batteries[1].rating: string-mixed',
    ]);
    const { capacityAh } = first!.rating;
    expect(codes({ ...TRUCK, batteries: [first!, other({ capacityAh: capacityAh * 1.09 })] })).toEqual([]);
    expect(codes({ ...TRUCK, batteries: [first!, other({ capacityAh: capacityAh * 1.11 })] })).toEqual([
      'batteries[1].rating: string-mixed',
    ]);
  });

  it('questions cold-cranking amps that no battery of that size has', () => {
    const rated = (chemistry: Chemistry, ccaAmps: number): string[] => {
      const [battery] = CAR.batteries;
      const rating = { ...battery!.rating, chemistry, capacityAh: 60, ccaAmps };
      return codes({ ...CAR, batteries: [{ ...battery!, rating }] });
    };
    const unlikely = ['batteries[0].rating.ccaAmps: rating-unlikely'];
    // 60 Ah: 540 A is usual; 54 and 5400 are a figure too few and one too many.
    for (const cca of [540, 150, 1500]) expect(rated('agm', cca)).toEqual([]);
    for (const cca of [54, 5400, 149, 1501]) expect(rated('agm', cca)).toEqual(unlikely);
    for (const cca of [5400, 240]) expect(rated('lfp', cca)).toEqual([]);
    for (const cca of [239, 7201]) expect(rated('lfp', cca)).toEqual(unlikely);
  });
});

describe('unknown machines', () => {
  it('have a sound template in every class, and a sound entry for every place', () => {
    for (const machineClass of MACHINE_CLASSES) {
      expect(codes(templateOf(machineClass)))
        .withContext(machineClass)
        .toEqual([]);
      expect(isTemplate(templateOf(machineClass))).toBeTrue();
      for (const place of placesOf(machineClass)) {
        const finding = {
          id: 'found',
          maker: 'Test',
          model: 'Test',
          machineClass,
          ...typicalOf(machineClass),
          placeId: place.id,
          layout: 'positive-right' as const,
          redPost: true,
        };
        const made = machineFrom(finding, TEMPLATE_CODES);
        expect(codes(made)).withContext(`${machineClass} ${place.id}`).toEqual([]);
        expect(made.batteries[0]!.place).toBe(place.id);
      }
    }
    expect(templateId('ev')).toBe('unknown-ev');
    expect(() => machineFrom({ ...templateFinding(), placeId: 'nowhere' }, TEMPLATE_CODES)).toThrowError(
      /no place nowhere/,
    );
  });

  const templateFinding = () => ({
    id: 'x',
    maker: 'Test',
    model: 'Test',
    machineClass: 'car' as const,
    ...typicalOf('car'),
    placeId: 'boot',
    layout: 'positive-left' as const,
    redPost: false,
  });

  it('put the likeliest place first, and follow the clues by Bayes’ rule', () => {
    for (const machineClass of MACHINE_CLASSES) {
      const shares = rankPlaces(machineClass, []).map((r) => r.share);
      expect(shares.reduce((a, b) => a + b, 0)).toBeCloseTo(1, 9);
      // Priors are written to sum to one themselves.
      expect(placesOf(machineClass).reduce((sum, p) => sum + p.prior, 0)).toBeCloseTo(1, 9);
    }
    expect(rankPlaces('car', [])[0]!.place.id).toBe('front-bay');
    expect(rankPlaces('car', ['battery-in-view'])[0]!.share).toBeGreaterThan(0.95);
    const hidden = rankPlaces('car', ['bay-empty', 'red-post-in-bay', 'vent-hose']);
    expect(hidden[0]!.place.id).toBe('boot');
    // By hand: boot 0.18 x 4 x 6 x 6 = 25.92; rear seat 0.09 x 4 x 5 x 4 = 7.2; arch 0.06 x 3 x 5 = 0.9; cowl 0.12 x 1.5 = 0.18; front bay
    // 0.55 x 0.05 x 0.2 x 0.5 = 0.00275.
    expect(hidden[0]!.share).toBeCloseTo(25.92 / (25.92 + 7.2 + 0.9 + 0.18 + 0.00275), 6);
    expect(cluesFor('motorcycle')).not.toContain('arch-screws');
  });
});
