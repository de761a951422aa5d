import { ENGINE_RANGES, FUELS } from '@voltrek/core/engine';
import {
  GEARBOXES,
  dataFaults,
  geometryFaults,
  type Machine,
  MACHINE_CLASSES,
  POINT_KINDS,
  TERMINAL_LAYOUTS,
  ZONE_KINDS,
} from '@voltrek/core/machine';
import * as yup from 'yup';
import { rating, record } from './calc/parts.js';
import { faultAt, faultError } from './fault.js';
import { idText } from './text.js';
import { FAULTS } from './words/fault-words.js';

/** No machine that is helped at a roadside is larger, mm. */
const MOST_MM = 25_000;
const mm = () => yup.number().min(-500).max(MOST_MM).required();
const size = () => yup.number().min(50).max(MOST_MM).required();
/** Text of an entry. A cell that a spreadsheet would take for a formula is refused, so that exports are safe to open. */
const words = (max: number) =>
  yup
    .string()
    .min(1)
    .max(max)
    .matches(/^[^=+@\t\r]/, { name: 'formula', message: FAULTS.formula })
    .required();
const list = (of: yup.Schema, min: number, max: number) => yup.array().of(of).min(min).max(max).required();
const texts = (max: number) => list(words(200), 0, max);

const planPoint = record({ xMm: mm(), yMm: mm() }).required();
const rect = record({ xMm: mm(), yMm: mm(), widthMm: size(), lengthMm: size() }).required();
const sidePoint = { yMm: mm(), zMm: mm() };

/** One machine of the atlas as it stands in a file or a request. */
export const machineSchema = record({
  id: idText(),
  maker: words(60),
  model: words(80),
  machineClass: yup.string().oneOf(MACHINE_CLASSES).required(),
  gearbox: yup.string().oneOf(GEARBOXES).required(),
  systemVolts: yup
    .number()
    .oneOf([12, 24] as const)
    .required(),
  earth: yup
    .string()
    .oneOf(['positive'] as const)
    .optional(),
  lengthMm: size(),
  widthMm: size(),
  outline: list(planPoint, 3, 80),
  glass: list(list(planPoint, 3, 40), 0, 12),
  wheels: list(rect, 0, 16),
  side: record({
    heightMm: size(),
    outline: list(record(sidePoint).required(), 3, 80),
    wheels: list(
      record({ ...sidePoint, radiusMm: yup.number().min(20).max(2000).required() }).required(),
      0,
      16,
    ),
  })
    .nullable()
    .default(undefined)
    .defined(),
  zones: list(
    record({ kind: yup.string().oneOf(ZONE_KINDS).required(), label: words(60), rect }).required(),
    0,
    20,
  ),
  batteries: list(
    record({
      rating: rating(),
      layout: yup.string().oneOf(TERMINAL_LAYOUTS).required(),
      rect,
      topMm: mm(),
      place: words(80),
      closedIn: yup.boolean().required(),
      ventHose: yup.boolean().required(),
    }).required(),
    1,
    2,
  ),
  points: list(
    record({
      id: idText(),
      kind: yup.string().oneOf(POINT_KINDS).required(),
      label: words(60),
      xMm: mm(),
      yMm: mm(),
      steps: texts(12),
      heightMm: mm().notRequired(),
      cover: words(60).notRequired(),
      tools: list(words(60), 0, 8).notRequired(),
      battery: yup.number().integer().min(0).max(1).notRequired(),
    }).required(),
    1,
    30,
  ),
  engine: record({
    fuel: yup.string().oneOf(FUELS).required(),
    displacementL: yup
      .number()
      .min(ENGINE_RANGES.displacementL.min)
      .max(ENGINE_RANGES.displacementL.max)
      .required(),
    cylinders: yup.number().integer().min(1).max(16).required(),
    systemVolts: yup
      .number()
      .oneOf([12, 24] as const)
      .required(),
  })
    .nullable()
    .default(undefined)
    .defined(),
  smartAlternator: yup.boolean().required(),
  resets: texts(20),
  cautions: texts(20),
  never: texts(20),
}).required();

/**
 * A machine of the atlas from untrusted input: its shape first, then its geometry.
 *
 * @throws yup.ValidationError with a path and a reason for each fault
 */
export function parseMachine(input: unknown): Machine {
  const machine = machineSchema.validateSync(input, { abortEarly: false, strict: true }) as Machine;
  const faults = [...geometryFaults(machine), ...dataFaults(machine)];
  if (faults.length === 0) return machine;
  throw new yup.ValidationError(faults.map(({ path, code }) => faultError(faultAt(path, code), null)));
}
