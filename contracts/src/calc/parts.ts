import { BATTERY_RANGES, CCA_STANDARDS, CHEMISTRIES } from '@voltrek/core/battery';
import { ENGINE_RANGES, FUELS } from '@voltrek/core/engine';
import { CLAMP_CONTACTS, CONDUCTORS, LEAD_RANGES } from '@voltrek/core/leads';
import { type Range, TYPED_RANGES } from '@voltrek/core/quantities';
import { BANK_RANGES } from '@voltrek/core/sources';
import * as yup from 'yup';

/** A figure within a range of the core, with its unit beside it. */
export const figure = ({ min, max, unit }: Range) =>
  yup
    .number()
    .min(min)
    .max(max)
    .meta({ jsonSchema: { description: unit } })
    .required();
const optional = (range: Range) => figure(range).notRequired().default(undefined);
export const record = <S extends yup.ObjectShape>(shape: S) => yup.object(shape).noUnknown().strict();

const SHARE: Range = { min: 0, max: 1, unit: 'fraction of full' };
export const AMPS: Range = { min: 0.001, max: 5000, unit: 'A' };
export const VOLTS: Range = { min: 0, max: 40, unit: 'V' };
export const OHMS: Range = { min: 0.00001, max: 10_000, unit: 'ohm' };
export const SECONDS: Range = { min: 0.01, max: 600, unit: 's' };
export const FARADS: Range = { min: 0.001, max: 1_000_000, unit: 'F' };
export const share = () => figure(SHARE);
export const tempC = () => figure(TYPED_RANGES.ambientC);
/** The coldest since the machine last ran, where that is known: ice does not thaw with the air. */
export const coldestC = () =>
  yup.number().min(TYPED_RANGES.ambientC.min).max(TYPED_RANGES.ambientC.max).notRequired();
export const chemistry = () => yup.string().oneOf(CHEMISTRIES).required();

export const rating = () =>
  record({
    chemistry: chemistry(),
    capacityAh: figure(BATTERY_RANGES.capacityAh),
    ccaAmps: figure(BATTERY_RANGES.ccaAmps),
    ccaStandard: yup.string().oneOf(CCA_STANDARDS).required(),
  }).required();

const battery = record({
  rating: rating(),
  soc: share(),
  /** Band of the charge; left out: no doubt about it. */
  socLow: optional(SHARE),
  socHigh: optional(SHARE),
  ageing: optional(BATTERY_RANGES.ageing),
  overDischargedVolts: optional({ min: 0, max: 12.6, unit: 'V' }),
}).required();

export const engine = record({
  fuel: yup.string().oneOf(FUELS).required(),
  displacementL: figure(ENGINE_RANGES.displacementL),
  cylinders: yup.number().integer().min(1).max(16).required(),
  systemVolts: yup
    .number()
    .oneOf([12, 24] as const)
    .required(),
}).required();

export const leads = record({
  sectionMm2: figure(LEAD_RANGES.sectionMm2),
  lengthM: figure(LEAD_RANGES.lengthM),
  conductor: yup.string().oneOf(CONDUCTORS).required(),
  contact: yup.string().oneOf(CLAMP_CONTACTS).required(),
});

export const source = record({
  openVolts: figure(VOLTS),
  ohms: figure(OHMS),
  polarises: yup.boolean().notRequired(),
  alternator: record({ volts: figure(VOLTS), maxAmps: figure(AMPS) })
    .notRequired()
    .default(undefined),
  capacitor: record({ farads: figure(FARADS), esrOhms: figure(OHMS) })
    .notRequired()
    .default(undefined),
});

/** A rescue as the command line takes it: batteries from the chassis side up, and what helps, if anything does. */
export const rescueShape = {
  tempC: tempC(),
  engine,
  batteries: yup.array().of(battery).min(1).max(2).required(),
  source: source.notRequired().default(undefined),
  leads: leads.notRequired().default(undefined),
  /** Index of the battery that the source is put across; left out: across the whole. */
  acrossBattery: yup.number().integer().min(0).max(1).notRequired(),
  waitMinutes: yup.number().integer().min(0).max(240).notRequired(),
};

/** The machine that something was found on. */
export const subjectShape = {
  systemVolts: yup
    .number()
    .oneOf([12, 24] as const)
    .required(),
  /** Left out: it wakes and does not crank. */
  engine: engine.notRequired().default(undefined),
  rating: rating(),
  tempC: tempC(),
};

/** The fields of a bank of equal cells. */
export const cellShape = () => ({
  cells: yup.number().integer().min(BANK_RANGES.cells.min).max(BANK_RANGES.cells.max).required(),
  cellFarads: figure(BANK_RANGES.cellFarads),
  cellVolts: figure(BANK_RANGES.cellVolts),
  cellOhms: figure(BANK_RANGES.cellOhms),
});
export const cells = () => record(cellShape()).required();

export const result = () => yup.number().required();
export const maybe = () => yup.number().nullable().defined();

/** The battery of a string that a piece of evidence was read at by itself, from the chassis side; left out: the machine, or its weakest. */
export const evidenceBattery = () => yup.number().integer().min(0).max(3);
