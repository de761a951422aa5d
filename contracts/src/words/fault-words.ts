import type { DataFaultCode, GeometryFaultCode } from '@voltrek/core/machine';
import { MADE_COLD, WRITTEN_LENGTHS, WRITTEN_NUMBER, type WrittenFault } from '@voltrek/core/practice';

/** Faults that a rule of the schemas finds in a field. */
const FIELD_FAULTS = {
  default: '${path} cannot be so',
  required: '${path} is missing',
  notNull: '${path} cannot be empty',
  oneOf: '${path} must be one of ${values}',
  notOneOf: '${path} must not be one of ${values}',
  notType: '${path} must be ${kind}',
  stringLength: '${path} must have ${length} characters',
  stringMin: '${path} must have ${min} characters at the least',
  stringMax: '${path} must have ${max} characters at the most',
  matches: '${path} is not written as it must be',
  trim: '${path} must not begin or end with a space',
  min: '${path} must be ${min} at the least',
  max: '${path} must be ${max} at the most',
  lessThan: '${path} must be less than ${less}',
  moreThan: '${path} must be more than ${more}',
  integer: '${path} must be a whole number',
  between: '${path} must be between ${min} and ${max} ${unit}',
  noUnknown: '${path} has unknown parts: ${unknown}',
  listLength: '${path} must have ${length} entries',
  listMin: '${path} must have ${min} entries at the least',
  listMax: '${path} must have ${max} entries at the most',
  id: '${path} must be lower-case letters, digits and dashes',
  uuid: '${path} must be a UUID',
  instant: '${path} must be an ISO 8601 instant',
  rules: '${path} must be house rules within their limits',
  noRule: '${path} is not a house rule',
  wrongShape: '${path} has the wrong fields for its kind',
  oneReading: 'give restVolts or gravities, one of the two',
  vehiclePlateOrModel: 'name a vehicle, its plate, or its model',
  modelOfNewPlate: 'name the model: nobody knows that plate yet',
  van: 'name the van',
  why: 'say why',
  pinDigits: 'a PIN is 6 to 12 digits',
  pinEasy: 'that PIN is too easily guessed: no runs, not the same digit throughout',
  vehicleAndPlace: 'name the vehicle and the place',
  stateNames: 'state is ${state}, so name ${names}',
  bankVolts: 'volts must be at most ${max} V: ${cells} cells hold no more together',
  badCharacter: '${path} has a character that cannot be kept',
  badKey: '${path} has a key that cannot be kept',
  tooDeep: '${path} nests deeper than ${max}',
} as const;

/** Faults of a row, or of a whole file. */
const FILE_FAULTS = {
  needsAbove: 'a ${part} row needs its ${whole} row above it',
  twice: '${key} is there twice',
  differsHere: '${path} differ here: none of them is replaced',
  taken: '${value} is taken by ${holder}',
  noSuch: 'there is no ${id} in ${list}',
  belongsElsewhere: 'an id in it belongs to something else here',
  noOpening: 'the events do not begin with one that opens the job',
  otherCall: 'the events belong to call ${call}',
  quotes: 'the file is cut off or garbled here: a quotation mark is missing',
  columnsMissing: 'columns missing: ${columns}',
  columnsUnknown: 'columns not known: ${columns}',
  cells: '${has} cells where ${due} are due',
  formula: '${path} looks like a spreadsheet formula',
  noLastLine: 'the last line does not end: the file may be cut off',
  notJson: 'the file is cut off or is not JSON here: ${token}',
  endsEarly: 'the file is cut off: it ends too early',
  empty: 'the file is empty',
  list: '${path} must be a list',
  exactly: '${path} must be ${value}',
  noNumber: '${path} must be a number, not ${cell}',
  noFlag: '${path} must be true or false',
  pairs: '${path} must be pairs of millimetres: 0 0; 1700 0; ...',
  noMachineRow: 'no machine row of “${id}” is above: rows of one machine follow each other',
  ofClass: '${key} stands for a class of machines and cannot be imported',
  caseNotJson: 'this is no JSON from here on',
  caseTooLarge: 'a case has a few thousand characters; this has more',
} as const;

/** Faults in the drawing or the data of a machine. */
const MACHINE_FAULTS: Readonly<Record<GeometryFaultCode | DataFaultCode, string>> = {
  'outline-open': 'the outline does not close around a body: give at least three corners that enclose one',
  'outline-crosses-itself': 'the outline crosses itself',
  'outline-outside-size': 'the outline goes beyond the length and width',
  'side-open': 'the side view does not close around a body',
  'side-crosses-itself': 'the side view crosses itself',
  'point-outside': 'the point lies outside the outline',
  'battery-outside': 'the battery lies outside the outline',
  'zone-outside': 'the zone lies outside the outline',
  'batteries-overlap': 'the battery lies over another battery',
  'unknown-battery': 'the point belongs to a battery that is not there',
  'same-id': 'another point has the same id',
  'latch-wire-alone': 'latch wires come in pairs: one is missing',
  'string-does-not-match-volts': 'one battery for each 12 V of the system is needed',
  'engine-does-not-match-volts': 'the starter and the batteries are of different volts',
  'engine-of-an-electric': 'an electric vehicle has no engine to crank',
  'string-mixed': 'the batteries of a string are of one kind and size',
  'rating-unlikely': 'no battery has so many, or so few, cold-cranking amps for its Ah',
  'no-red-point': 'no point takes a red clamp',
  'no-black-point': 'no point takes a black clamp',
  'positive-earth-unknown':
    'a machine with its plus on the body has an engine, one battery and the posts of that battery, no others',
};

/** Faults for which a written case cannot be played. */
export const WRITTEN_FAULTS: Readonly<Record<WrittenFault, string>> = {
  'unknown-machine': 'no class of machine is called so',
  'cold-out-of-range': `from ${MADE_COLD.min} to ${MADE_COLD.max} °C, in whole figures`,
  'number-out-of-range': `from ${WRITTEN_NUMBER.min} to ${WRITTEN_NUMBER.max}`,
  'fault-not-of-machine': 'such a machine cannot have this fault',
  'along-not-of-machine': 'this cannot come along with that fault on such a machine',
  'unknown-symptom': 'no driver’s word is called so',
  'unknown-question': 'nobody is asked this about such a machine',
  'unknown-answer': 'this is no answer to that question',
  'unknown-kit': 'no such kit, or named twice',
  'text-too-long': `a title has ${WRITTEN_LENGTHS.title} characters at the most, a driver’s words ${WRITTEN_LENGTHS.says}`,
  'no-text': 'it needs a title',
  'text-broken': 'a sign of it is broken',
};

/** English words of each fault of a field, a row or a file, by its code. A name in ${} is filled in. */
export const FAULTS = { ...FIELD_FAULTS, ...FILE_FAULTS, ...MACHINE_FAULTS, ...WRITTEN_FAULTS };

/** Code of a fault: stable, whatever its words. */
export type FaultCode = keyof typeof FAULTS;

/** The files in which a row may look for a name. */
export const LISTS = {
  crew: 'the crew',
  models: 'the atlas',
  vans: 'the vans',
  vehicles: 'the vehicles',
  calls: 'the calls',
} as const;

/** Kinds of values, as a fault of a field names them. */
export const VALUE_KINDS = {
  number: 'a number',
  string: 'text',
  boolean: 'yes or no',
  array: 'a list',
  object: 'an object',
} as const;
