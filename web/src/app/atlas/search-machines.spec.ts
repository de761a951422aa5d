import { CAR, VAN } from '../../testing/fixtures';
import { searchMachines } from './search-machines';

describe('searchMachines', () => {
  const found = (typed: string): string[] => searchMachines([CAR, VAN], typed).map((m) => m.id);

  it('finds by any words, in any order and case', () => {
    expect(found('')).toEqual(['car', 'van']);
    expect(found('VAN test')).toEqual(['van']);
    expect(found('front bay')).toEqual(['car', 'van']);
    expect(found('test truck')).toEqual([]);
  });
});
