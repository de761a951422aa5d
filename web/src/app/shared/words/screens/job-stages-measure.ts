import { type Shown, tell } from '../tell';

/** Words of the screens of job, stages, measure, one list a part. */

export const BANK_NOW = {
  bank: (farads: Shown, volts: Shown) => tell`Capacitor bank, ${farads} F at ${volts}`,
  cranksLeft: (cranks: number, cutOff: Shown) =>
    cranks > 0
      ? tell`Cranks left: about ${cranks}, down to ${cutOff}`
      : tell`No crank left above ${cutOff}: fill it first`,
  holds: 'Holds',
  withLampsOn: (headlamps: Shown, parking: Shown, parked: Shown) =>
    tell`${headlamps} with headlamps on, ${parking} with parking lamps, ${parked} parked`,
  fullAgain: 'Full again',
  byWhat: (alternator: Shown, converter: Shown, solar: Shown) =>
    tell`${alternator} from an alternator, ${converter} from a converter or charger of 10 A, ${solar} from a panel of 100 W in the sun`,
} as const;

export const ENTRY = {
  amps: 'Amps',
  draw: 'Draw',
  volts: 'Volts',
} as const;

export const LIVE_LINE = {
  hold: 'Hold',
  probesAreThere: 'Probes are there',
  takeIt: 'Take it',
  overItsRange: 'over its range',
  held: 'held',
  secondsOld: (seconds: Shown) => tell`${seconds} s old`,
  probesMoveAFreshValueComes: 'probes move, a fresh value comes',
  anOldValue: 'an old value',
  lineBrokenAnOldValue: 'line broken, an old value',
  asBeforeMoveTheProbes: 'as before: move the probes',
} as const;

export const LIVE_STORE = {
  theLineToTheServerBroke: 'The line to the server broke. Nothing was taken.',
} as const;

export const MEANING = {
  flatInDaysFromFull: (found: Shown) => tell`, flat in ${found} days from full`,
  cell: (badCell: Shown) => tell`: cell ${badCell}`,
  chargeApart: (which: Shown, high: Shown, spread: Shown) => tell`${which}, charge ${high}, ${spread} apart`,
  houseRule: 'House rule',
  limit: 'Limit',
} as const;

export const MEASURE = {
  trace: 'Trace',
  thatIsNotAFigure: 'That is not a figure.',
  cell: (wrong: Shown) => tell`Cell ${wrong}`,
  tellsBetweenAnd: (one: Shown, other: Shown) => tell`tells between ${one} and ${other}`,
  toTheChassisLessBelowIt: (own: Shown, own2: Shown) => tell`To the chassis, less ${own} below it: ${own2}. `,
  readTheBatteriesBelowItFirst: 'Read the batteries below it first: this is all of them together.',
  readTheRestVoltsFirstThe: 'Read the rest volts first: the drop is from there.',
  measure: 'Measure',
  battery: (chemistry: Shown, tempC: Shown) => tell`battery ${chemistry}, ${tempC}`,
  bank: (bank: Shown, tempC: Shown) => tell`${bank}, ${tempC}`,
  itsEngineRuns: 'Its engine runs',
  where: 'Where',
  whichReading: 'Which reading',
  cellHere: (a: Shown) => tell`cell ${a}`,
  worthMostNext: (name: Shown) => tell`Worth most next: ${name}`,
  choose: 'Choose',
  type1162For1162Meter: 'Type 1162 for 11.62. Meter + on +, - on -.',
  typeAFigure: 'Type a figure',
  closeThePad: 'Close the pad',
  take: 'Take ',
  takeTheSixCells: 'Take the six cells',
  nothingToDo: 'Nothing to do here',
  planWithoutAReading: 'Plan without a reading',
} as const;

export const TAKEN = {
  taken: 'Taken',
  withdraw: 'Withdraw',
  nothingYet: 'Nothing yet.',
} as const;

export const TRACE_CHART = {
  crank: 'crank',
  rest: (restVolts: Shown) => tell`, rest ${restVolts}`,
  crankDownTo: (minimumVolts: Shown) => tell`, crank down to ${minimumVolts}`,
  noCrank: ', no crank',
  traceOfPointsOverS: (rows: Shown, durationSeconds: Shown, rest: Shown, cranked: Shown) =>
    tell`Trace of ${rows} points over ${durationSeconds} s${rest}${cranked}`,
} as const;

export const TRACE_PART = {
  even: 'even',
  inside: 'inside',
  recovery: 'recovery',
  chatters: 'chatters',
  speed: 'speed',
  amps: 'amps',
  openATraceFile: 'Open a trace file',
  captureACrankFromTheMeter: 'Capture a crank from the meter',
  stopCapturing: 'Stop capturing',
  cancel: 'Cancel',
  crankNowPointsLowestSoFar: (points: Shown) => tell`Crank now. ${points} points, lowest so far`,
  readingTheFile: (share: Shown) => tell`Reading the file, ${share}`,
  taken: 'Taken',
  take: 'Take ',
  readingsOfIt: ' readings of it',
  points: (name: Shown, rows: Shown) => tell`${name}, ${rows} points`,
  csvOfTimeAndVoltsAmps:
    'CSV of time and volts, amps if logged: with a header or without, comma or semicolon, seconds or milliseconds. Or let the linked meter capture the next try.',
  theLastLineWasCutOff: 'The last line was cut off and is left out.',
  timeTakenAsByItsSteps: (timeUnit: Shown) => tell`Time taken as ${timeUnit}, by its steps.`,
  keyOnDrop: 'key-on drop',
  inrushMinimum: 'inrush minimum',
  crankMinimum: 'crank minimum',
  crankMean: 'crank mean',
  crankedFor: 'cranked for',
  timesASecond: (a: Shown) => tell`${a} times a second`,
  unevenCompression: 'uneven compression',
  look: (percent: Shown) => tell`${percent}: look`,
  atS: (a: Shown, afterSeconds: Shown) => tell`${a} at ${afterSeconds} s`,
  chargingFrom: 'charging from',
  coldCrankingEst: 'cold-cranking, est.',
  capturedFromTheMeter: 'captured from the meter',
  isNotTaken: (name: Shown, message: Shown) => tell`${name} is not taken. ${message}`,
} as const;
