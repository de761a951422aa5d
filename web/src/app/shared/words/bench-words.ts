import type { BatteryChemistry, CcaStandard } from '@voltrek/core/battery';
import type { Fuel } from '@voltrek/core/engine';
import type { ClampContact, Conductor } from '@voltrek/core/leads';
import { messagesOf } from './messages-of';

/** The calculators of the bench, in the order of their list. */
export const BENCH_TOOLS = [
  'leads',
  'capacitor',
  'energy',
  'equalise',
  'charge',
  'drain',
  'soc',
  'cca',
  'freeze',
  'string',
  'revive',
] as const;
export type BenchToolId = (typeof BENCH_TOOLS)[number];

/** The name of each, its formula, and the usual mistake. */
export const BENCH_WORDS: Record<
  BenchToolId,
  { readonly name: string; readonly formula: string; readonly slip: string }
> = messagesOf('bench');

export type BenchField =
  | 'sectionMm2'
  | 'lengthM'
  | 'conductor'
  | 'contact'
  | 'amps'
  | 'seconds'
  | 'tempC'
  | 'displacementL'
  | 'fuel'
  | 'cells'
  | 'cellFarads'
  | 'cellVolts'
  | 'cellMilliohms'
  | 'cellGrams'
  | 'cellMillilitres'
  | 'batteryKg'
  | 'batteryLitres'
  | 'loadWatts'
  | 'dutyPercent'
  | 'volts'
  | 'minVolts'
  | 'chargeAmps'
  | 'drainMilliamps'
  | 'highVolts'
  | 'lowVolts'
  | 'highFarads'
  | 'lowFarads'
  | 'mostAmps'
  | 'safeVolts'
  | 'leadMilliohms'
  | 'chemistry'
  | 'capacityAh'
  | 'percent'
  | 'targetPercent'
  | 'spareAmps'
  | 'method'
  | 'gravity'
  | 'standard'
  | 'ccaAmps'
  | 'firstVolts'
  | 'secondVolts'
  | 'restVolts'
  | 'healthyVolts'
  | 'senseVolts'
  | 'ohms';

export const BENCH_FIELDS: Record<BenchField, string> = messagesOf('benchFields');

export type BenchChoice =
  | BatteryChemistry
  | Conductor
  | ClampContact
  | Fuel
  | CcaStandard
  | 'rest-volts'
  | 'hydrometer';

export const BENCH_CHOICES: Record<BenchChoice, string> = messagesOf('benchChoices');

export type BenchResult =
  | 'lostVolts'
  | 'loopOhms'
  | 'riseC'
  | 'rpm'
  | 'neededRpm'
  | 'starterVolts'
  | 'bankFarads'
  | 'maxVolts'
  | 'balancedVolts'
  | 'fallCharge'
  | 'fallEsr'
  | 'cranks'
  | 'energy'
  | 'recharge'
  | 'holdUp'
  | 'firstCharge'
  | 'bankEnergy'
  | 'bankPerKg'
  | 'bankPerLitre'
  | 'batteryEnergy'
  | 'batteryPerKg'
  | 'batteryPerLitre'
  | 'lessByWeight'
  | 'bankHolds'
  | 'batteryHolds'
  | 'keepAmps'
  | 'directAmps'
  | 'resistor'
  | 'lamp'
  | 'tau'
  | 'toSafe'
  | 'burnt'
  | 'peakWatts'
  | 'hours'
  | 'accepts'
  | 'startAh'
  | 'startBack'
  | 'drive'
  | 'advice'
  | 'days'
  | 'drawJudged'
  | 'charge'
  | 'band'
  | 'freezeC'
  | 'frozen'
  | 'asSAE'
  | 'asEN'
  | 'asDIN'
  | 'asIEC'
  | 'asJIS'
  | 'sum'
  | 'difference'
  | 'battery1Charge'
  | 'battery2Charge'
  | 'alone'
  | 'helped'
  | 'contactAmps'
  | 'minutes'
  | 'refused';

export const BENCH_RESULTS: Record<BenchResult, string> = messagesOf('benchResults');

/** The process that goes on until a figure of a tool is reached: its name, its axis, and its unit. */
export type BenchPath = 'bankVolts' | 'apartVolts' | 'chargePercent' | 'flatVolts';
export const BENCH_PATHS: Record<BenchPath, { readonly name: string; readonly over: string }> =
  messagesOf('benchPaths');

/** The unit of each axis. */
export const BENCH_PATH_UNITS: Record<BenchPath, string> = {
  bankVolts: '',
  apartVolts: 's',
  chargePercent: 'h',
  flatVolts: 'min',
};

/** Single words of answers. */
export const BENCH_ANSWERS = messagesOf('benchAnswers');
