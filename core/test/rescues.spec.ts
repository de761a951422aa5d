import { seededRandom } from '../src/quantities/index.js';
import { PROVES, shareOf } from './proof-share.js';
import { brier, calibrationError, type Claim, deciles, reliabilityLines } from './reliability.js';
import { play } from './rescue-claims.js';

/** Share of the thousand rescues of each kind that `npm test` plays. */
const USUAL_SHARE = 0.025;
const MOST = 1000;

const baseRate = (claims: readonly Claim[]): number =>
  claims.filter(({ isMet }) => isMet).length / claims.length;

/** The error of the claims: by deciles, or of a few rescues in the mean, since two in a decile are off by chance alone. */
const errorOf = (claims: readonly Claim[]): number =>
  PROVES
    ? calibrationError(claims)
    : Math.abs(claims.reduce((sum, { claim }) => sum + claim, 0) / claims.length - baseRate(claims));

/** Prints what was claimed and what happened. */
function tell(name: string, claims: readonly Claim[]): void {
  const base = baseRate(claims);
  process.stdout.write(
    [
      `${name}: ${claims.length}, Brier ${brier(claims).toFixed(3)} against ${(base * (1 - base)).toFixed(3)} of the base rate, ` +
        `calibration error ${calibrationError(claims).toFixed(3)}`,
      ...reliabilityLines(deciles(claims)),
      '',
    ].join('\n'),
  );
}

describe('odds of a plan against rescues of a world drawn apart', () => {
  const count = Math.round(MOST * shareOf(USUAL_SHARE));
  // The mean of 25 claims is off by this much by chance.
  const chance = PROVES ? 0 : 0.05;
  for (const [kind, error] of [
    ['called', 0.05],
    ['hard', 0.09],
  ] as const) {
    it(`before the first try and after one that failed, ${kind}`, () => {
      const random = seededRandom(kind === 'called' ? 11 : 12);
      const played = Array.from({ length: count }, () => play(kind, random));
      const first = played.map((p) => p.first);
      const second = played.flatMap((p) => (p.second ? [p.second] : []));
      tell(`first tries, ${kind}`, first);
      tell(`second tries, ${kind}`, second);
      expect(errorOf(first)).toBeLessThan(error + chance);
      const base = baseRate(first);
      expect(brier(first)).toBeLessThan(0.9 * base * (1 - base));
      expect(errorOf(second)).toBeLessThan(error + chance + 0.03);
      // A start that is told under one in five happens in at most one of four.
      const unlikely = second.filter(({ claim }) => claim < 0.2);
      expect(baseRate(unlikely)).toBeLessThan(0.25);
    }, 900_000);
  }
});
