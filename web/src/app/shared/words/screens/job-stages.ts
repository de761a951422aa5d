import { type Shown, tell } from '../tell';

/** Words of the screens of job, stages, one list a part. */

export const CHECKS = {
  checks: 'Checks',
  ofDone: (answered: Shown, checks: Shown) => tell`${answered} of ${checks} done`,
  whatItDoes: 'What it does',
  theDriverSays: (told: Shown) => tell`The driver says${told}`,
  lookBeforeTouching: 'Look before touching',
  checksDone: 'Checks done',
  goOnToLocate: 'Go on to Locate',
} as const;

export const CLEARDOWN = {
  clearDown: 'Clear down',
  theHookUpInReverse: 'the hook-up in reverse',
  keepTheEngineRunningUntilIt: 'Keep the engine running until it stands where it can be started again.',
  nothingWasConnected: 'Nothing was connected.',
  everythingIsOffAndLaidDown: 'Everything is off and laid down.',
  converterFeedsBack: 'Converter feeds back?',
  doesItCharge: 'Does it charge?',
  chargingVoltsAreTakenSeeMeasure: 'Charging volts are taken. See Measure for what they say.',
  smartAlternatorOutsideTheBandRead: 'Smart alternator: outside the band, read again after 5 min.',
  readIdleAndLoadedAtThe: (smartAlternatorOutsideTheBandRead: Shown) =>
    tell`Read idle and loaded at the posts. ${smartAlternatorOutsideTheBandRead}`,
  readChargingVolts: 'Read charging volts',
  setAgainAfterPowerLoss: 'Set again after power loss',
  everythingIsOffGoOnCrank: 'Everything is off. Go on: crank',
  nothingToDo: 'Nothing to do here',
  showTheStep: 'Show the step first',
} as const;

export const CRANK_METER = {
  meterLowest: (at: Shown) => tell`meter ${at}, lowest`,
} as const;

export const CRANK = {
  wake: 'Wake',
  crank: 'Crank',
  howDidItEnd: 'How did it end?',
  voltsAtThePostsIfRead: 'Volts at the posts, if read',
  lowestVoltsAtThePostsIf: 'Lowest volts at the posts, if read',
  n962Is962: '962 is 9.62',
  meter: ', meter',
  endTheTry: 'End the try: ',
  sayHowItEnded: 'Say how it ended',
  takeTheChargerOffFirst: 'Take the charger off first',
  wait: 'Wait ',
  crankSooner: '. Crank sooner',
  rest: 'Rest ',
  crankSoonerAndSayWhy: '. Crank sooner, and say why',
  withHelpJoined: 'with help joined',
  onItsOwnBatteryNothingJoined: 'on its own battery, nothing joined',
  stopCrankingNow: 'Stop cranking now',
  brakeDownStartPressed: 'Brake down, start pressed',
  cranking: 'Cranking',
  awakeAndReady: 'Awake and ready',
  itRuns: 'It runs',
  onChargeNothingIsCrankedWith: 'On charge: nothing is cranked with it',
  starterAndLeadsRest: 'Starter and leads rest',
  readyStandClearOfTheBattery: 'Ready. Stand clear of the battery',
  holdTheVoltsSteadyUntilIts: 'Hold the volts steady until its own lamps say ready.',
  sInAllComputedFromThe: (restFor: Shown, restSeconds: Shown) =>
    tell`${restFor}: ${restSeconds} s in all, computed from the amps and the seconds.`,
  sAtMostThenSRest: (limitSeconds: Shown, crankRestSeconds: Shown, crankTriesMax: Shown) =>
    tell`${limitSeconds} s at most, then ${crankRestSeconds} s rest, ${crankTriesMax} tries.`,
  lookElsewhereBackToChecks: 'Look elsewhere: back to Checks',
  chooseItInPlan: 'Choose it in Plan',
  clampsAreSetAgain: 'Clamps are set again',
  waitMore: (waitMinutes: Shown) => tell`Wait ${waitMinutes} more`,
  pressStartTry: (nth: Shown) => tell`Press start, try ${nth}`,
  crankNowTry: (nth: Shown) => tell`Crank now, try ${nth}`,
  thatIsNotAVoltage: 'That is not a voltage.',
  volts: 'Volts',
  whyCrankBeforeTheStarterAnd: 'Why crank before the starter and leads have rested?',
} as const;

export const HOOKUP = {
  hookUp: 'Hook up',
  iDidSomethingElse: 'I did something else',
  noSourceIsChosenYet: 'No source is chosen yet.',
  showTheStep: 'Show the step first',
  stopSayWhy: 'Stop. Only with a reason: say why',
  whyAllTheSame: (hazard: Shown) => tell`${hazard} Why go on all the same?`,
  notAsTheHouseHasIt: (rule: Shown, why: Shown) => tell`Not by the house rule “${rule}”: ${why}`,
  noPlaceForIt: 'this machine has no place for it.',
  hookedUpStandClearOfThe: 'Hooked up. Stand clear of the battery.',
  chargedTakeItOffFirst: 'Charged. Take it off first',
  chargedTakeTheChargerOffFirst: 'Charged. Take the charger off first',
  goOnWakeIt: 'Go on: wake it',
  goOnCrank: 'Go on: crank',
  fullChargerOffPlugOutClamps: 'Full: charger off, plug out, clamps away',
  footOnTheBrakePressStart: 'Foot on the brake, press start',
  standClearCrankTheCasualty: 'Stand clear, crank the casualty',
  houseRule: (toLowerCase: Shown, school: Shown) => tell`house rule: ${toLowerCase} ${school}`,
} as const;

export const MEASURE_LEADS = {
  measure: (name: Shown) => tell`Measure ${name}`,
  atTheSourceV: 'At the source, V',
  atTheCasualtyV: 'At the casualty, V',
  throughALeadA: 'Through a lead, A',
  noteIt: 'Note it',
  whileItCranksOrChargesClamp:
    'While it cranks or charges: clamp to clamp at either end, both within a moment.',
  noted: (words: Shown) => tell`Noted: ${words}`,
  voltsAtTheSource: 'Volts at the source',
  voltsAtTheCasualty: 'Volts at the casualty',
  amps: 'Amps',
  theSourceMustStandHigherThan:
    'The source must stand higher than the casualty: it gives. Read both ends again.',
  tooFewAmpsToTellAnything: 'Too few amps to tell anything: read it while it cranks or charges.',
} as const;

export const NEXT_TRIES = {
  now: 'Now',
  whatToDoNowBestFirst: 'What to do now, best first',
  weighingWhatTheTryTold: 'Weighing what the try told.',
  thatTheFaultLiesWhereNo: (elsewhere: Shown) =>
    tell`That the fault lies where no source helps: ${elsewhere}.`,
  lookElsewhereJointsLocksStarterFuel: 'Look elsewhere: joints, locks, starter, fuel',
  theFaultIsThere: 'the fault is there',
  againAsItIs: 'Again, as it is',
  waitMoreThenCrank: (waitMinutes: Shown) => tell`Wait ${waitMinutes} more, then crank`,
  runningInAbout: (minutes: Shown) => tell`running in about ${minutes}`,
} as const;

export const PLAN_PROMISE = {
  thePlanSaid: 'the plan said',
  oddsOfAStart: 'odds of a start',
  atThePosts: 'at the posts',
  atTheStarter: 'at the starter',
  needs: (neededRpm: Shown) => tell`needs ${neededRpm}`,
  whileItWakes: 'while it wakes',
} as const;

export const SCENE = {
  dark: 'dark',
  sloping: 'sloping',
  scene: 'Scene',
  iAnswerForAnApprentice: 'I answer for an apprentice here',
  air: (unit: Shown) => tell`Air, ${unit}`,
  serviceLow: (told: Shown, lowC: Shown, sky: Shown) => tell`service: ${told}, low ${lowC}, ${sky}`,
  place: 'Place',
  coldestSinceItRan: (unit: Shown) => tell`Coldest since it ran, ${unit}`,
  anyOfTheseStopsTheJob: 'Any of these stops the job',
  safeToWorkHere: 'Safe to work here',
  closedIn: 'closed in',
  mainsNear: 'mains near',
  notSeenYetShowThem: (unseen: Shown, unseen2: Shown) => tell`${unseen} ${unseen2} not seen yet. Show them`,
  colder: 'Colder',
  warmer: 'Warmer',
  itWasColder: 'It was colder',
  itWasLessCold: 'It was less cold',
} as const;

export const STOP_SCREEN = {
  stop: 'Stop',
  itNoLongerStands: 'It no longer stands',
  firstOff: (step: Shown) => tell`First, if you can reach it safely: ${step}.`,
  leaveTheClamps: 'Clamps are on. Leave them as they are until it is safe to come near.',
  readItAgain: 'Read it again',
  noHookUpIsOffered: (caution: Shown) => tell`No hook-up is offered. ${caution}`,
} as const;

export const TRIES = {
  try: (a: Shown, name: Shown) => tell`Try ${a}: ${name}`,
  rolled: 'rolled',
  planSaidAtThePosts: (promised: Shown, sign: Shown, differenceVolts: Shown, code: Shown) =>
    tell`Plan said ${promised} at the posts, ${sign}${differenceVolts}: ${code}.`,
} as const;
