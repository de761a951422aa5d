/** Words for a field, a row or a file that cannot be taken; the schema fills in a name in ${}. */
export const FIELD_WORDS = {
  mixed: {
    default: '${path} cannot be so',
    required: '${path} is missing',
    defined: '${path} is missing',
    notNull: '${path} cannot be empty',
    oneOf: '${path} must be one of ${values}',
    notOneOf: '${path} must not be one of ${values}',
    notType: ({ path, type }: { path: string; type: string }) => `${path} must be ${KINDS[type] ?? type}`,
  },
  string: {
    length: '${path} must have ${length} characters',
    min: ({ path, min }: { path: string; min: number }) =>
      min === 1 ? `${path} is missing` : `${path} must have ${min} characters at the least`,
    max: '${path} must have ${max} characters at the most',
    matches: '${path} is not written as it must be',
    trim: '${path} must not begin or end with a space',
  },
  number: {
    min: '${path} must be ${min} at the least',
    max: '${path} must be ${max} at the most',
    lessThan: '${path} must be less than ${less}',
    moreThan: '${path} must be more than ${more}',
    integer: '${path} must be a whole number',
  },
  object: { noUnknown: '${path} has parts that nobody knows: ${unknown}' },
  array: {
    min: '${path} must have ${min} of them at the least',
    max: '${path} must have ${max} of them at the most',
    length: '${path} must have ${length} of them',
  },
} as const;

const KINDS: Readonly<Record<string, string>> = {
  number: 'a number',
  string: 'text',
  boolean: 'yes or no',
  array: 'a list',
  object: 'a whole with its parts',
};

export const FIELD_FAULTS = {
  id: '${path} must be lower-case letters, digits and dashes',
  uuid: '${path} must be a UUID',
  instant: '${path} must be an ISO 8601 instant',
  rules: '${path} must be house rules within their limits',
  wrongShape: '${path} has the wrong fields for its kind',
  oneReading: 'give restVolts or gravities, not both and not neither',
  vehiclePlateOrModel: 'name a vehicle, its plate, or its model',
  van: 'name the van',
  why: 'say why',
  pinDigits: 'a PIN is 6 to 12 digits',
  pinEasy: 'that PIN is too easily guessed: no runs, not the same digit throughout',
  vehicleAndPlace: 'name the vehicle and the place',
} as const;

/** The files in which a row may look for a name. */
export const LISTS = {
  crew: 'the crew',
  models: 'the atlas',
  vans: 'the vans',
  vehicles: 'the vehicles',
  calls: 'the calls',
} as const;

export const ROW_FAULTS = {
  kind: (kinds: string) => `kind must be one of ${kinds}`,
  needsAbove: (part: string, whole: string) => `a ${part} needs its ${whole} above it`,
  mustBe: (kinds: readonly string[]) => `must be ${kinds.join(' or ')}`,
  twice: (key: string) => `${key} stands twice`,
  differsHere: 'are told otherwise here: nothing of them is replaced',
  taken: (value: string, holder: string) => `${value} is taken by ${holder}`,
  noSuch: (id: string, where: string) => `there is no ${id} in ${where}`,
  belongsElsewhere: 'an id in it belongs to something else here',
  noOpening: 'events do not begin with one that opens the job',
  garbledHere: (why: string) => `the file is cut off or garbled here: ${why}`,
  columnsMissing: (columns: string) => `columns missing: ${columns}`,
  columnsUnknown: (columns: string) => `columns not known: ${columns}`,
  cells: (has: number, due: number) => `${has} cells where ${due} are due`,
  formula: 'looks like a spreadsheet formula',
  noLastLine: 'the last line does not end: the file may be cut off',
  notJson: (why: string) => `the file is cut off or is not JSON here (${why})`,
  empty: 'the file is empty',
  list: 'must be a list',
  exactly: (value: string | number) => `must be ${value}`,
} as const;
