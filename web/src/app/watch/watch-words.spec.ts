import type { WatchedVehicle } from '@voltrek/contracts';
import type { Outlook } from '@voltrek/core/belief';
import type { Watched } from './watch-store';
import { cureText, lettersOf, messagesText, oddsText, reasonText, roundsOf } from './watch-words';

const NIGHT = { day: '2026-12-06', lowC: -15 };
const LOW: Outlook = {
  night: 3,
  start: 0.31,
  reason: 'joint',
  cure: { kind: 'tighten', start: 0.94 },
};
const FINE: Outlook = { night: 3, start: 0.97, reason: null, cure: null };

function watched(
  id: string,
  outlook: Outlook,
  owner: string | null,
  more: Partial<WatchedVehicle> = {},
): Watched {
  return {
    outlook,
    vehicle: {
      id,
      plate: `QK ${id}`,
      fleetNumber: null,
      serialNumber: null,
      modelName: 'Made Van',
      placeName: 'Fish quay',
      owner: owner
        ? {
            id: owner,
            name: `Owner ${owner}`,
            phone: '0555 01',
            noLetters: owner === 'quiet',
            erasedAt: null,
          }
        : null,
      standing: {} as WatchedVehicle['standing'],
      ...more,
    },
  };
}

describe('words of a watch', () => {
  it('never tell odds as certain', () => {
    expect(oddsText(1)).toBe('99');
    expect(oddsText(0.314)).toBe('31');
  });

  it('tell reason, cure, minutes and the odds after it; above the bar nothing', () => {
    const low = watched('1', LOW, 'a');
    expect(reasonText(low)).toBe('Bad joint');
    expect(cureText(low)).toBe('clean and tighten the clamps, 10 min: then 94 in 100');
    expect(reasonText(watched('2', FINE, 'a')) + cureText(watched('2', FINE, 'a'))).toBe('');
  });

  it('put a round together by place, with its minutes', () => {
    const there = watched('1', LOW, 'a');
    const yard = watched('2', { ...LOW, cure: { kind: 'replace', start: 0.95 } }, 'a', { placeName: '' });
    const rounds = roundsOf([there, yard, watched('3', LOW, 'b')]);
    expect(rounds.map(({ place, watched: all, minutes }) => [place, all.length, minutes])).toEqual([
      ['Fish quay', 2, 20],
      ['No place', 1, 25],
    ]);
  });

  it('write to each owner once, never to one who wants no letters, was forgotten or is not known', () => {
    const gone = watched('5', LOW, 'gone');
    const erased: Watched = {
      ...gone,
      vehicle: { ...gone.vehicle, owner: { ...gone.vehicle.owner!, name: null, phone: null } },
    };
    const low = [
      watched('1', LOW, 'a'),
      watched('2', LOW, 'quiet'),
      watched('3', LOW, null),
      erased,
      watched('4', LOW, 'a'),
    ];
    const letters = lettersOf(low, low, NIGHT);
    expect(letters.map(({ to }) => to)).toEqual(['Owner a']);
    expect(letters[0]!.lines.join('\n')).toContain('QK 1: 31 in 100 that it starts. Bad joint');
    expect(letters[0]!.lines.join('\n')).toContain('QK 4');
    expect(messagesText(letters)).toContain('Owner a, 0555 01\n');
  });

  it('tell the owner of a fleet of every vehicle, and nobody else of those that are well', () => {
    const fleet = ['1', '2', '3'].map((id) => watched(id, id === '1' ? LOW : FINE, 'fleet'));
    const pair = ['7', '8'].map((id) => watched(id, id === '7' ? LOW : FINE, 'pair'));
    const all = [...fleet, ...pair];
    const letters = lettersOf(all, [fleet[0]!, pair[0]!], NIGHT);
    const textOf = (name: string): string => letters.find(({ to }) => to === name)!.lines.join('\n');
    expect(textOf('Owner fleet')).toContain('QK 3: 97 in 100');
    expect(textOf('Owner pair')).not.toContain('QK 8');
  });
});
