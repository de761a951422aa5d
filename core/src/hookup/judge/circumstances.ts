import { parameter } from '../../quantities/index.js';
import type { Feed } from '../../circuit/index.js';

/** Feeds that keep the casualty's plus live beside its own battery. */
export const FEEDS = ['memory-keeper', 'second-battery', 'charger', 'solar-panel'] as const;
export type FeedKind = (typeof FEEDS)[number];

/** How things stand beside the clamps, noted as they are found or as they change. */
export const CIRCUMSTANCES = [
  ...FEEDS,
  'vehicles-touch',
  'isolator-open',
  'casualty-engine-runs',
  'donor-revs-raised',
  'gear-engaged',
  'not-secured',
  'positive-earth',
  'series-link-wrong',
  'source-tripped',
] as const;
export type Circumstance = (typeof CIRCUMSTANCES)[number];

/** Metal that a clamp was put on in place of the clean metal it was meant for. */
export const WRONG_METALS = [
  'pipe',
  'thin-sheet',
  'moving-part',
  'bare-post',
  'battery-sensor',
  'isolated-body',
  'forty-eight-volts',
] as const;
/**
 * `pipe` carries fuel, brake fluid or refrigerant; `thin-sheet` is bodywork, painted or hinged; `bare-post` the lead of a post beside its
 * bracket; `battery-sensor` the minus post behind a sensor; `isolated-body` a hull or chassis that nothing bonds to the battery.
 */
export type WrongMetal = (typeof WRONG_METALS)[number];

/** The strength of each feed, of 12 V: volts behind ohms, up to its amps. */
const GIVES: Record<FeedKind, Omit<Feed, 'name'>> = {
  'memory-keeper': {
    volts: 12.6,
    ohms: parameter(0.25, {
      id: 'feed.memoryKeeper',
      name: 'inside a memory keeper',
      low: 0.05,
      high: 1,
      unit: 'ohm',
      reason: 'A small battery through a thin lead: no start, but a spark and a burn.',
    }),
    maxAmps: null,
  },
  'second-battery': {
    volts: 12.6,
    ohms: parameter(0.008, {
      id: 'feed.secondBattery',
      name: 'inside a second battery',
      low: 0.004,
      high: 0.02,
      unit: 'ohm',
      reason: 'As large as the first, through its relay and cable.',
    }),
    maxAmps: null,
  },
  charger: {
    volts: 14.4,
    ohms: 0.02,
    maxAmps: parameter(15, {
      id: 'feed.charger',
      name: 'amps of a charger left on',
      low: 4,
      high: 40,
      unit: 'A',
      reason: 'Of a usual workshop charger.',
    }),
  },
  'solar-panel': {
    volts: 14.4,
    ohms: 0.05,
    maxAmps: parameter(8, {
      id: 'feed.solar',
      name: 'amps of a solar panel',
      low: 1,
      high: 20,
      unit: 'A',
      reason: 'Of a roof panel in the sun.',
    }),
  },
};

export const isFeed = (what: Circumstance): what is FeedKind => (FEEDS as readonly string[]).includes(what);

/** The feeds among these circumstances, as the circuit sees them. */
export function feedsOf(circumstances: readonly Circumstance[], systemVolts: number): readonly Feed[] {
  const scale = systemVolts / 12;
  return circumstances.filter(isFeed).map((name) => {
    const { volts, ohms, maxAmps } = GIVES[name];
    return { name, volts: volts * scale, ohms: ohms * scale, maxAmps };
  });
}
