import { type Shown, tell } from '../tell';

/** Words of the screens of shell, one list a part. */

export const KEY_HELP = {
  keys: 'Keys',
  close: 'Close',
  openAStageOnMeasureType: 'open a stage (on Measure: type a figure)',
  theNextAction: 'the next action',
  takeAReading: 'take a reading',
  makeSafe: 'make safe',
  thisList: 'this list',
} as const;

export const NOT_HERE = {
  nothingHere: 'Nothing here',
  thatAddressNamesNoScreen: 'That address names no screen.',
  toTheBoard: 'To the board',
} as const;

export const REFUSALS = {
  notDone: 'Not done: ',
} as const;

export const THIS_DEVICE = {
  thisDevice: 'This device',
  on: 'on',
  off: 'off',
  tryTheTone: 'Try the tone',
  close: 'Close',
} as const;

export const TOP_BAR = {
  name: 'voltrek',
  voltrekToTheBoard: 'voltrek, to the board',
  main: 'Main',
  whoWorks: 'Who works',
  van: 'Van',
  thisDeviceSettings: 'This device: settings',
  light: 'Light',
  light2: 'Light: ',
  change: '. Change',
  board: 'Board',
  vehicles: 'Vehicles',
  batteries: 'Batteries',
  atlas: 'Atlas',
  kit: 'Kit',
  log: 'Log',
  bench: 'Bench',
  practice: 'Practice',
  rules: 'Rules',
  day: 'Day',
  dusk: 'Dusk',
  night: 'Night',
} as const;

export const WAITING_DIALOG = {
  waitingForTheServer: 'Waiting for the server',
  thisDeviceCannotKeepTapsIts:
    'This device cannot keep taps: its browser has no room for them, or forbids it. They go straight to the server. Do not close this page while any waits.',
  theServerDoesNotAnswerIt:
    'The server does not answer. It is tried again and again; work goes on meanwhile.',
  notTaken: (why: Shown) => tell`Not taken: ${why}`,
  sendAgain: 'Send again',
  dropIt: 'Drop it',
  notTakenSixTimesOver: (why: Shown) => tell`Not taken six times over: ${why}`,
  nothingWaitsAllIsSaved: 'Nothing waits. All is saved.',
  close: 'Close',
  droppedHere: (reason: Shown) => tell`Dropped here: ${reason}`,
} as const;

export const WHO_WORKS = {
  whoWorksOnThisDevice: 'Who works on this device?',
  allThatIsTappedHereIs:
    'All that is tapped here is logged under this name. It can be changed at the top of the Board.',
} as const;
