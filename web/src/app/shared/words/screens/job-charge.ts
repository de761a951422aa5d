import { type Shown, tell } from '../tell';

/** Words of the screens of job, charge, one list a part. */

export const CHARGE_WATCH = {
  chargeUnderWay: 'Charge under way',
  fullAbout: 'full about',
  toBeTriedAt: 'to be tried at',
  onChargeSince: (since: Shown, toBeTriedAt: Shown) => tell`On charge since ${since}, ${toBeTriedAt}`,
  atItsPostsV: 'At its posts, V',
  chargerGivesA: 'Charger gives, A',
  caseIsWarm: 'Case is warm',
  noteIt: 'Note it',
  noteAsFoundFullAtOnce: 'Note as found: full at once',
  meanwhileCallWaits: (call: Shown, title: Shown, placeName: Shown) =>
    tell`Meanwhile: call ${call} waits, ${title}, ${placeName}.`,
  nothingElseWaitsOnTheBoard: 'Nothing else waits on the board as this device knows it.',
  toTheBoard: 'To the board',
  volts: 'Volts',
  amps: 'Amps',
} as const;

export const PUT_ON_CHARGE = {
  orLeaveItOnACharger: 'Or leave it on a charger here',
  putItOnChargeHere: 'Put it on charge here',
  aInThisCold: (amps: Shown, hours: Shown) => tell`${amps} A, ${hours} in this cold`,
  clearDownFirst: 'Clear down first',
  putItOn: 'Put it on',
} as const;

export const REVIVE_PROMPT = {
  liftItOverTheSenseVoltage: 'Lift it over the sense voltage',
  proveItsPolarityTwice: 'Prove its polarity twice',
  theMarksOfItsCaseAnd:
    'The marks of its case and the meter must agree. One that reads backwards is never lifted.',
  askItsAgeLookAtIts: 'Ask its age, look at its case',
  swollenCrackedWetOrOlderThan: 'Swollen, cracked, wet, or older than six years: it is replaced, not lifted.',
  healthyBatteryBesideItRedTo: (lampWatts: Shown) =>
    tell`Healthy battery beside it: red to red, then black to black through a ${lampWatts} W lamp`,
  theLampHoldsTheCurrentDown:
    'The lamp holds the current down: it glows at first and fades as the volts come up.',
  aAtTheFirstContactW: (contactAmps: Shown, peakWatts: Shown) =>
    tell`${contactAmps} A at the first contact, ${peakWatts} W in the lamp: it gets hot.`,
  leaveItForMinUntilAbout: (minutes: Shown, due: Shown) =>
    tell`Leave it for ${minutes} min, until about ${due}`,
  thenItShouldReadOverV: (senseVolts: Shown) =>
    tell`Then it should read over ${senseVolts} V. Does it not rise in twice that time, suspect a shorted cell: it is tested, not charged on.`,
  handOnTheCaseEveryFew: 'Hand on the case every few minutes',
  warmMeansOffAtOnceNobody: 'Warm means off at once. Nobody leaves it alone.',
  gasInTheOpenNoFlame: 'Gas: in the open, no flame, eyes covered.',
  lampOffBlackFirstThenSet: (name: Shown, amps: Shown) =>
    tell`Lamp off, black first. Then ${name}, set to ${amps} A`,
  lampOffBlackFirstThenA: (amps: Shown) => tell`Lamp off, black first. Then a charger of its kind, ${amps} A`,
  aTenthOfItsCapacityMore: 'A tenth of its capacity: more warms plates that have slept.',
  restHAfterTheChargeThen: (restHours: Shown) =>
    tell`Rest ${restHours} h after the charge, then read and test it`,
  beforeThatNothingTellsWhetherIt: 'Before that nothing tells whether it holds.',
  theMakersInstructionsComeFirstA:
    "The maker's instructions come first. A deep discharge has cost it life, whatever it reads afterwards.",
  itIsOverReadItAgain: 'It is over: read it again',
  notDone: 'Not done',
} as const;
