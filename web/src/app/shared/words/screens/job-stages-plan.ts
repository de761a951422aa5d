import { type Shown, tell } from '../tell';

/** Words of the screens of job, stages, plan, one list a part. */

export const OPTION_LIST = {
  sourcesBestFirst: 'Sources, best first',
  nothingOnThisVanFitsCall: 'Nothing on this van fits. Call for a matching source, or recover.',
} as const;

export const PARAMETER_NOTES = {
  usually: (value: Shown) => tell`usually ${value}, `,
  hereTo: (reason: Shown, usual: Shown, low: Shown, high: Shown, unit: Shown) =>
    tell`${reason} Here ${usual}${low} to ${high} ${unit}.`,
} as const;

export const PLAN_CHARTS = {
  clad: 'clad',
  copper: 'copper',
  in100: (a: Shown) => tell`${a} in 100`,
  min: (kneeMinutes: Shown) => tell`${kneeMinutes} min`,
  tractionFlat: 'traction flat',
} as const;

export const PLAN_COMPARE = {
  twoOptionsSideBySide: 'Two options side by side',
  compareWith: 'Compare with',
  oddsOfAStart: 'odds of a start',
  atTheStarter: 'at the starter',
  ofRpm: (rpm: Shown, neededRpm: Shown) => tell`${rpm} of ${neededRpm} rpm`,
  starterDraws: 'starter draws',
  helpGives: 'help gives',
  lostInLeads: 'lost in leads',
  atThePostsWaking: 'at the posts, waking',
  chargesFirst: 'charges first',
  min: (chargeMinutes: Shown) => tell`${chargeMinutes} min`,
  heldBackBy: 'held back by',
} as const;

export const PLAN_DETAIL = {
  warming: 'warming',
  volts: 'volts',
  inHundred: 'in 100',
  crank: 'Crank',
  wait: 'Wait',
  leads: 'Leads',
  figures: 'Figures',
  atTheStarter: 'at the starter',
  needs: (neededRpm: Shown) => tell`needs ${neededRpm}`,
  itDraws: 'it draws',
  leadsLose: 'leads lose',
  atThePosts: 'at the posts',
  whileItWakes: 'while it wakes',
  inDepth: 'In depth',
  fromBeforeTheChange: 'From before the change.',
  computeAgain: 'Compute again',
  show: 'Show',
  thisSourceHasNoLeadsTo: 'This source has no leads to choose.',
  computing: (percentDone: Shown) => tell`computing, ${percentDone}`,
  stop: 'Stop',
  oddsOfAStart: 'Odds of a start',
  mostOfTheDoubtIs: (a: Shown) => tell`Most of the doubt is ${a}.`,
  heldBackMostBy: 'Held back most by',
  wouldHelpMost: 'Would help most:',
  doesNotFireWithin3S: 'Does not fire within 3 s.',
  firesAfterS: (fires: Shown) => tell`Fires after ${fires} s.`,
  crankInTimeDipsToV: (dipVolts: Shown, at: Shown, neededRpm: Shown, fires: Shown) =>
    tell`Crank in time: dips to ${dipVolts} V, ends at ${at} rpm, needs ${neededRpm}. ${fires}`,
  leadSetsForThisRescueBest: (sectionMm2: Shown, lengthM: Shown, odds: Shown) =>
    tell`Lead sets for this rescue. Best: ${sectionMm2}, ${lengthM}, ${odds}.`,
  toByDraws: (low: Shown, high: Shown, samples: Shown) => tell`${low} to ${high} by ${samples} draws`,
} as const;

export const PLAN_INPUTS = {
  backToItsOwnValue: (name: Shown) => tell`Back to its own value: ${name}`,
  mustBeANumber: (name: Shown) => tell`${name} must be a number`,
} as const;

export const PLAN_NOTES = {
  theLatchLetsGoItReleases: 'the latch lets go. It releases, it does not start',
  aboutAThroughTheLatch: (amps: Shown, does: Shown) => tell`about ${amps} A through the latch: ${does}.`,
  theWeakBatteryCannotFillIt: 'the weak battery cannot fill it',
  fillsItselfFromTheWeakBattery: (seconds: Shown) =>
    tell`fills itself from the weak battery in ${seconds} min`,
  ofSByItselfAbove: (cOUNTED_SECONDS: Shown, leastVolts: Shown) =>
    tell`of ${cOUNTED_SECONDS} s by itself above ${leastVolts}`,
  noWholeCrankTheBatteryMust: (howLong: Shown) => tell`no whole crank ${howLong}, the battery must help`,
} as const;

export const PLAN_STORE = {
  theFiguresCouldNotBeComputed: 'The figures could not be computed.',
} as const;

export const PLAN_WAYS = {
  askToCome: (van: Shown) => tell`Ask ${van} to come`,
  waitFor: (van: Shown) => tell`Wait for ${van}`,
  ifThatOnlyGroansTheNext: (nameOf: Shown, minutes: Shown, start: Shown) =>
    tell`If that only groans, the next best: ${nameOf}, ${minutes}, ${start}.`,
  thatTheFaultLiesWhereNo: (share: Shown) =>
    tell`That the fault lies where no source helps: ${share}. Look at joints, locks, starter and fuel first.`,
  nothingFits: 'Nothing fits',
  searching: 'Searching',
  mendTheJointFirst: 'Mend the joint first',
  readWhichJointItIs: 'Read which joint it is',
  goOnCrankItAsIt: 'Go on: crank it as it is',
  rollItStepByStep: 'Roll it, step by step',
  goOnSetTheClampsAgain: 'Go on: set the clamps again',
  goOnChangeTheBattery: 'Go on: change the battery',
  goOnToHookUp: 'Go on to Hook up',
  takeItAllTheSame: (name: Shown) => tell`Take it all the same: ${name}`,
  takeRunningBy: (name: Shown, at: Shown) => tell`Take: ${name}, running by ${at}`,
} as const;

export const VAN_COMING = {
  onItsWay: (van: Shown, called: Shown, due: Shown) => tell`${van} was asked at ${called}, due ${due}.`,
  isHere: 'It is here',
  said: (van: Shown) => tell`${van} takes, min`,
  less: 'Five minutes less',
  more: 'Five minutes more',
} as const;

export const PLAN = {
  stopAhead: (hazard: Shown) => tell`Stop ahead: ${hazard} Hook up asks why before it is joined.`,
  notPossible: (bars: Shown) => tell`no: ${bars}`,
  possible: (cautions: Shown) => tell`possible: ${cautions}`,
  plan: 'Plan',
  sideBySide: 'Side by side',
  inDepth: 'In depth',
  theWaysCouldNotBeSearched: 'The ways could not be searched.',
  searchAgain: 'Search again',
  computeAgain: 'Compute again',
  theComputingStoppedOnceAndWas: 'The computing stopped once and was started again.',
  searching: (share: Shown) => tell`Searching, ${share}`,
  oddsDrawn: (oddsProgress: Shown) => tell`Odds: ${oddsProgress} drawn`,
  rollingStart: 'Rolling start',
  fromTheReadingsTaken: 'from the readings taken',
  assumesABatteryAt10Not: 'assumes a battery at 10 %: not measured',
  nothingFits: 'Nothing fits',
  goOnToHookUp: 'Go on to Hook up',
  take: (name: Shown) => tell`Take: ${name}`,
} as const;

export const UNFIT_LIST = {
  notHere: 'Not here',
} as const;

export const WAY_LIST = {
  asSureAs: 'As sure as',
  waysToGetItGoingSoonest: 'Ways to get it going, soonest first',
  notLikely: 'Not likely',
  oddsByMinutes: (nameOf: Shown, minutes: Shown, start: Shown) =>
    tell`Odds by minutes. ${nameOf}: ${minutes}, ${start}.`,
  oddsByMinutes2: 'Odds by minutes.',
} as const;

export const WAYS_CHART = {
  surely: 'surely',
  half: '1 in 2',
  never: 'never',
  now: 'now',
  min: (minutes: Shown) => tell`${minutes} min`,
} as const;
