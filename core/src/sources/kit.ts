import { type BlockRating, type BlockState, blockOhms, blockOpenVolts } from '../battery/block.js';
import { restVoltsAt } from '../battery/rest-volts.js';
import type { LeadSet } from '../leads/lead-set.js';
import { bankOf, type CellBank } from './cell-bank.js';

/** The service van itself, lending its block and alternator. */
export interface DonorKit {
  readonly kind: 'donor';
  readonly id: string;
  readonly name: string;
  /** Its entry in the atlas, which holds its points and drawing. */
  readonly machineId: string;
  readonly systemVolts: 12 | 24;
  readonly block: BlockRating;
  readonly soc: number;
  /** What the alternator can lend beyond the van's own needs at idle. */
  readonly alternatorSpareAmps: number;
}

export interface LeadSetKit {
  readonly kind: 'lead-set';
  readonly id: string;
  readonly name: string;
  readonly leads: LeadSet;
}

export interface LithiumPackKit {
  readonly kind: 'lithium-pack';
  readonly id: string;
  readonly name: string;
  readonly peakAmps: number;
  readonly charge: number;
  readonly leads: LeadSet;
}

export interface LeadPackKit {
  readonly kind: 'lead-pack';
  readonly id: string;
  readonly name: string;
  /** Selectable output; a 24 V setting puts two equal blocks in series. */
  readonly outputs: readonly (12 | 24)[];
  readonly block: BlockRating;
  readonly soc: number;
  readonly leads: LeadSet;
}

export interface CapacitorBoosterKit extends CellBank {
  readonly kind: 'capacitor-booster';
  readonly id: string;
  readonly name: string;
  /** What the bank stands at now. */
  readonly volts: number;
  readonly leads: LeadSet;
}

/** A small supply of a few volts that only releases a latch. */
export interface LatchSourceKit {
  readonly kind: 'latch-source';
  readonly id: string;
  readonly name: string;
  readonly volts: number;
}

export type KitItem =
  | DonorKit
  | LeadSetKit
  | LithiumPackKit
  | LeadPackKit
  | CapacitorBoosterKit
  | LatchSourceKit;

/** A source as the circuit sees it: volts behind ohms. */
export interface SourceModel {
  readonly openVolts: number;
  readonly ohms: number;
  /** Present when an alternator works beside it. */
  readonly alternator?: { readonly volts: number; readonly maxAmps: number };
  /** Above this the source cannot deliver or shuts itself off. */
  readonly maxAmps?: number;
  /** Lead-acid inside: part of its resistance is polarisation, which builds up over about a second. */
  readonly polarises?: boolean;
  /** A capacitor bank: its volts fall with the charge it gives. `ohms` then stands for both, at the moment of judgement. */
  readonly capacitor?: { readonly farads: number; readonly esrOhms: number };
}

/** Regulated volts of a donor's alternator at idle. */
const ALTERNATOR_VOLTS = 14.2;
/** Volts a lithium pack is pulled to by its rated peak at 25 degC; the rating means that or less. */
const LITHIUM_PEAK_VOLTS = 8;
/** Lithium resistance grows by e per this many degC of cold. */
const LITHIUM_E_FOLD_C = 60;
/** The capacitor is judged one second into the crank: the middle of a good try. */
export const CAPACITOR_MID_CRANK_S = 1;

const goodBlock = (soc: number, tempC: number): BlockState => ({ soc, tempC, ageing: 1.2 });

/** A donor's block, with its alternator beside it when its engine runs. */
export function donorSource(donor: DonorKit, engineRunning: boolean, tempC: number): SourceModel {
  const blocks = donor.systemVolts / 12;
  const state = goodBlock(donor.soc, tempC);
  return {
    openVolts: blocks * blockOpenVolts(donor.block, state),
    ohms: blocks * blockOhms(donor.block, state),
    polarises: true,
    ...(engineRunning && {
      alternator: { volts: blocks * ALTERNATOR_VOLTS, maxAmps: donor.alternatorSpareAmps },
    }),
  };
}

/** A lithium pack: open volts by its charge, resistance from its peak rating, worse in the cold. */
export function lithiumSource(pack: LithiumPackKit, tempC: number): SourceModel {
  const openVolts = restVoltsAt('lfp', pack.charge, tempC);
  const ohms = ((openVolts - LITHIUM_PEAK_VOLTS) / pack.peakAmps) * Math.exp((25 - tempC) / LITHIUM_E_FOLD_C);
  return { openVolts, ohms, maxAmps: pack.peakAmps };
}

/** A lead-acid pack at its chosen output. */
export function leadPackSource(pack: LeadPackKit, output: 12 | 24, tempC: number): SourceModel {
  const blocks = output / 12;
  const state = goodBlock(pack.soc, tempC);
  return {
    openVolts: blocks * blockOpenVolts(pack.block, state),
    ohms: blocks * blockOhms(pack.block, state),
    polarises: true,
  };
}

/**
 * A capacitor bank in the middle of a crank: while `I` flows the bank falls by I t / C, which at the fixed moment of judgement acts as
 * the resistance t / C.
 */
export function capacitorSource(booster: CapacitorBoosterKit): SourceModel {
  const { farads, esrOhms } = bankOf(booster);
  return {
    openVolts: booster.volts,
    ohms: esrOhms + CAPACITOR_MID_CRANK_S / farads,
    capacitor: { farads, esrOhms },
  };
}
