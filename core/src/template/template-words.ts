import { LIKELY_PLACE_IDS, type LikelyPlaceId } from './likely-places.js';

export const CLASS_CAUTIONS = [
  'high-voltage',
  'middle-joint-live',
  'secure-first',
  'chock-it',
  'starts-by-itself',
  'vapour-in-bilge',
] as const;
/** The dangers of a whole class of machines, by code. */
export type ClassCaution = (typeof CLASS_CAUTIONS)[number];

export const CLASS_NEVERS = [
  'both-on-one',
  'running-car',
  'bridge-seat-switch',
  'lend-from-it',
  'donor-runs',
] as const;
/** The acts that a whole class of machines never stands, by code. */
export type ClassNever = (typeof CLASS_NEVERS)[number];

/** The name of a place, and one or two steps that reach it. */
export interface PlaceWords {
  readonly name: string;
  readonly first: string;
  readonly then?: string;
}

/** The words of an entry that is made for a class, in one language. */
export interface TemplateWords {
  readonly place: Readonly<Record<LikelyPlaceId, PlaceWords>>;
  /** A post of the only battery. */
  readonly battery: (values: { readonly sign: string }) => string;
  /** A post of one battery of a string, numbered from 1. */
  readonly batteryOf: (values: { readonly number: number; readonly sign: string }) => string;
  readonly redPost: string;
  readonly redPostStep: string;
  readonly ground: string;
  readonly groundStep: string;
  /** Set again after the battery was off. */
  readonly clock: string;
  readonly caution: Readonly<Record<ClassCaution, string>>;
  readonly never: Readonly<Record<ClassNever, string>>;
}

const itself = <K extends string>(codes: readonly K[]): Record<K, K> =>
  Object.fromEntries(codes.map((code) => [code, code])) as Record<K, K>;

/** Codes in place of words: for the physics, which reads none, and for a store, whose reader has a language. */
export const TEMPLATE_CODES: TemplateWords = {
  place: Object.fromEntries(
    LIKELY_PLACE_IDS.map((id) => [id, { name: id, first: id, then: id }]),
  ) as TemplateWords['place'],
  battery: ({ sign }) => `battery ${sign}`,
  batteryOf: ({ number, sign }) => `battery ${number} ${sign}`,
  redPost: 'red-post',
  redPostStep: 'red-post',
  ground: 'ground',
  groundStep: 'ground',
  clock: 'clock',
  caution: itself(CLASS_CAUTIONS),
  never: itself(CLASS_NEVERS),
};
