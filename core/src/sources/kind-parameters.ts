import type { Parameter } from '../quantities/index.js';
import { ESR_E_FOLD_C } from './cell-bank.js';
import {
  CAPACITOR_MID_CRANK_S,
  CONVERTER_EFFICIENCY,
  CONVERTER_LEAST_VOLTS,
} from './kinds/capacitor-booster.js';
import { ALTERNATOR_VOLTS, DONOR_WARMER_C, RAISED_REVS_FACTOR } from './kinds/donor.js';
import { HOBBY_SAG_SHARE } from './kinds/hobby-lithium.js';
import { LITHIUM_E_FOLD_C, LITHIUM_PEAK_VOLTS } from './kinds/lithium-pack.js';
import { LINK_LEAD_OHMS } from './kinds/spare-batteries.js';

/** Parameters of the kinds of kit, each with its range and reason. */
export const kindParameters = (): readonly Parameter[] => [
  {
    id: 'cable.linkLead',
    name: 'link lead of two spare batteries',
    value: LINK_LEAD_OHMS,
    low: 0.0005,
    high: 0.003,
    unit: 'ohm',
    reason: 'Half a metre of 25 mm2 with two clamps.',
  },
  {
    id: 'alternator.volts',
    name: 'regulated volts at idle',
    value: ALTERNATOR_VOLTS,
    low: 13.6,
    high: 14.8,
    unit: 'V',
    reason: 'Per 12 V of system.',
  },
  {
    id: 'donor.warmer',
    name: 'donor battery above the air',
    value: DONOR_WARMER_C,
    low: 0,
    high: 25,
    unit: 'degC',
    reason: 'It was driven here and runs.',
  },
  {
    id: 'lithium.peakVolts',
    name: 'volts at the rated peak',
    value: LITHIUM_PEAK_VOLTS,
    low: 6,
    high: 9.5,
    unit: 'V',
    reason: 'The rating means that or less.',
  },
  {
    id: 'lithium.coldFold',
    name: 'cold that multiplies its resistance by e',
    value: LITHIUM_E_FOLD_C,
    low: 25,
    high: 36,
    unit: 'degC',
    reason: 'At -20 degC three to five times its resistance at 20 degC.',
  },
  {
    id: 'hobby.sag',
    name: 'volts lost at continuous amps',
    value: HOBBY_SAG_SHARE,
    low: 0.05,
    high: 0.2,
    unit: 'of open',
    reason: 'Of a pack in good health.',
  },
  {
    id: 'capacitor.judgedAt',
    name: 'moment a bank is judged at',
    value: CAPACITOR_MID_CRANK_S,
    low: 0.5,
    high: 2,
    unit: 's',
    reason: 'The middle of a good try.',
  },
  {
    id: 'capacitor.coldFold',
    name: 'cold that multiplies its ESR by e',
    value: ESR_E_FOLD_C,
    low: 50,
    high: 120,
    unit: 'degC',
    reason: 'At -20 degC half again to two and a half times its ESR at 25 degC, by electrolyte.',
  },
  {
    id: 'capacitor.converterLeast',
    name: 'least volts a booster fills itself from',
    value: CONVERTER_LEAST_VOLTS,
    low: 2.5,
    high: 7,
    unit: 'V',
    reason: 'Its converter stops below; what is printed on it goes before.',
  },
  {
    id: 'capacitor.converterEfficiency',
    name: 'efficiency of its converter',
    value: CONVERTER_EFFICIENCY,
    low: 0.7,
    high: 0.93,
    unit: 'of what it takes',
    reason: 'Heavily loaded, lifting low volts.',
  },
  {
    id: 'donor.raised',
    name: 'what raised revs lend against idle',
    value: RAISED_REVS_FACTOR,
    low: 1.2,
    high: 2.2,
    unit: 'times',
    reason: 'An alternator gives about half of its rating at idle and most of it at 1,800 rpm.',
  },
];
