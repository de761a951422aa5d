import { type Crowd, type DiagnosisProfile, drawCrowd } from '../src/diagnosis/index.js';
import { seededRandom } from '../src/quantities/index.js';

/** True in `npm run prove`, which goes through its share of all cases; `npm test` goes through a small seeded part of them. */
export const PROVES = process.env.PROVE_SHARE !== undefined;

/** The share of all cases that a sweep goes through, from 0 to 1. */
export const shareOf = (usual: number): number => Number(process.env.PROVE_SHARE ?? usual);

/** Draws of each cause for tests that are about something else: enough to tell causes apart, drawn in a fifth of the time. */
const FEW_DRAWS = 120;

const drawn = new Map<string, Crowd>();
/** So many crowds are held side by side: a thousand would not fit. */
const HELD_MOST = 12;

/** The whole crowd of a profile where something is proved; a smaller one of the same causes in `npm test`. */
export function crowdForTests(profile: DiagnosisProfile): Crowd {
  const key = JSON.stringify(profile);
  const known = drawn.get(key);
  if (known) return known;
  if (drawn.size >= HELD_MOST) drawn.clear();
  const crowd = PROVES ? drawCrowd(profile) : drawCrowd(profile, seededRandom(7), FEW_DRAWS);
  drawn.set(key, crowd);
  return crowd;
}
