import type { Machine } from '@voltrek/core/machine';
import { CAR } from '../../../testing/fixtures';
import { entryFaults, entryFields, idFrom, withNewPoint } from './entry-fields';

const setIn = (machine: Machine, title: string, label: string, typed: string): Machine =>
  entryFields(machine)
    .find((g) => g.title === title)!
    .fields.find((f) => f.label === label)!
    .set(machine, typed);

describe('entryFields', () => {
  it('give back the same entry when nothing is changed', () => {
    for (const group of entryFields(CAR))
      for (const field of group.fields)
        expect(field.set(CAR, field.value)).withContext(`${group.title}: ${field.label}`).toEqual(CAR);
  });

  it('change one thing each, decimal comma or not', () => {
    expect(setIn(CAR, 'Battery', 'Capacity, Ah', '62,5').batteries[0]!.rating.capacityAh).toBe(62.5);
    expect(setIn(CAR, 'Machine', 'Smart alternator', 'true').smartAlternator).toBeTrue();
    expect(setIn(CAR, 'To be told', 'Never, one a line', ' Push it. \n\nTow it.').never).toEqual([
      'Push it.',
      'Tow it.',
    ]);
    const covered = setIn(CAR, 'Point: ground', 'Under', 'a hood');
    expect(covered.points[2]!.cover).toBe('a hood');
    expect('cover' in setIn(covered, 'Point: ground', 'Under', '').points[2]!).toBeFalse();
  });

  it('tell at once what cannot be so, and where', () => {
    expect(entryFaults(CAR)).toEqual({});
    expect(entryFaults(setIn(CAR, 'Point: ground', 'From the left, mm', '9000'))).toEqual({
      'points[2].label': 'the point lies outside the outline',
    });
    expect(
      entryFaults(setIn(CAR, 'Battery', 'Capacity, Ah', 'many'))['batteries[0].rating.capacityAh'],
    ).toContain('must be a number');
    expect(entryFaults(setIn(CAR, 'Machine', 'Maker', '=1+1'))).toEqual({
      maker: jasmine.stringContaining('spreadsheet formula'),
    });
  });

  it('add a point that stands, and take it out again', () => {
    const more = withNewPoint(CAR);
    expect(entryFaults(more)).toEqual({});
    const group = entryFields(more).find((g) => g.title === 'Point: Point 4')!;
    expect(group.remove!(more)).toEqual(CAR);
    // A battery keeps its terminals.
    expect(entryFields(CAR).find((g) => g.title === 'Point: Battery +')!.remove).toBeNull();
  });

  it('make an id that is safe in an address', () => {
    expect(idFrom('Tést Make', 'Odd/One 1.6')).toBe('test-make-odd-one-1-6');
    expect(idFrom('  ', '??')).toBe('');
  });
});
