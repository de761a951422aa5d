import { type Shown, tell } from '../tell';

/** Words of the screens of job, stages, verdict, one list a part. */

export const CHANGE_BATTERY = {
  replacement: (place: Shown) => tell`Replacement, ${place}`,
  whichBattery: 'Which battery',
  kind: 'kind',
  atLeast: 'at least',
  posts: 'posts',
  ventHose: ', vent hose',
  changeBothOfAStringA: 'Change both of a string: a new one starves with an old one.',
  houseRuleACapacitorBankMay: (cranks: Shown, parkedHours: Shown) =>
    tell`House rule, a capacitor bank may stand in: ${cranks} cranks, and parked it is down in ${parkedHours}. Charge it before each start.`,
  changedItsRecordGoesOnHere: 'Changed. Its record goes on here.',
  changedItsRecordBeginsToday: 'Changed. Its record begins today.',
  theBatteryThatWentIn: 'The battery that went in',
  ofTheVan: (code: Shown, rating: Shown) => tell`${code} of the van, ${rating}`,
  aNewOne: 'a new one',
  itIsFitted: 'It is fitted',
  coldCrankingA: 'cold-cranking A',
  by: 'by',
  dateMark: 'date mark',
  typeWhatIsPrintedOnThe: 'Type what is printed on the new battery.',
  itDoesNotFit: (join: Shown) => tell`It does not fit: ${join}.`,
} as const;

export const FITTING_STEPS_PART = {
  stepOf: (doneCount: Shown, order: Shown) => tell`Step ${doneCount} of ${order}`,
  done: 'Done',
  whatElseFeedsIt: 'What else feeds it',
  aSpannerSlippingToBodyworkNow: (slipAmps: Shown) => tell`A spanner slipping to bodywork now: ${slipAmps}`,
  whatElseFeedsItKeepsThe: (now: Shown) => tell`${now}: what else feeds it keeps the plus live. Cover it.`,
  theOtherWayRound: (now: Shown, otherWayAmps: Shown) => tell`${now}; the other way round: ${otherWayAmps}.`,
} as const;

export const TAKE_OUT = {
  takeItOut: (which: Shown) => tell`Take it out to charge ${which}`,
  outChargeIt: 'It is out. Charge it.',
  chargeSo: (amps: Shown, least: Shown, most: Shown, hours: Shown) =>
    tell`${amps} A, held at ${least} to ${most} V, ${hours} to full.`,
  whereToCharge:
    'On a bench with air, no flame near, vents free. Clamps on before the charger is switched on, off after.',
  restThen: (hours: Shown) => tell`Rest it ${hours} h, read it, then put it back.`,
  backIn: 'It is back in.',
  setAgain: (resets: Shown) => tell`Set again: ${resets}.`,
} as const;

export const MAINTAINER_PART = {
  leaveItOnAMaintainer: 'Leave it on a maintainer',
  gives: 'gives at least',
  holds: 'holds',
  volts: (least: Shown, most: Shown) => tell`${least} to ${most}`,
  halfEmpty: 'without it half empty in',
  halfEmptyParted: 'negative off half empty in',
  pigtail: (sectionMm2: Shown, fuseAmps: Shown) =>
    tell`A lead of ${sectionMm2} mm² that stays on, its ${fuseAmps} A fuse within a hand of the positive.`,
  rings: 'Rings under the clamp bolts: positive first, negative last. Off the other way round.',
  where: 'Lead it clear of doors, fan, belt and exhaust; plug where it can be reached with the lid shut.',
  plug: 'A plug that fits one way only, with a cap. Unplug before the engine is started.',
  orMinusOff: 'No socket where it stands: take the negative off instead.',
  notMinusOff: 'Leave the negative on: what would have to be set again is under Clear down.',
  drainFrom: (milliamps: Shown) =>
    milliamps
      ? tell`With the ${milliamps} mA that were read asleep.`
      : 'With 25 mA asleep: not measured here.',
} as const;

export const CHARGE_ADVICE = {
  takeItOutStepByStep: 'Take it out step by step',
  theWeakestOfTheString: ', the weakest of the string',
  chargePlanBattery: (chemistry: Shown, theWeakestOfTheString: Shown) =>
    tell`Charge plan, ${chemistry} battery${theWeakestOfTheString}`,
  aTenthOfItsCapacity: 'a tenth of its capacity',
  holdAt: 'hold at',
  to: (leastVolts: Shown, mostVolts: Shown) => tell`${leastVolts} to ${mostVolts}`,
  toFullFrom: (fromSoc: Shown) => tell`to full, from ${fromSoc} %`,
  thenKeepItWith: 'then keep it with',
  doNotUse: (unfit: Shown) => tell`do not use: ${unfit}`,
  chargerWillRefuseItLiftIt: 'Charger will refuse it: lift it first',
  houseRuleReplaceABatteryThis: 'House rule: replace a battery this flat.',
  never: 'never',
  min: ' min',
  aHealthyBatteryBesideItThrough: (lampWatts: Shown, contactAmps: Shown, min: Shown) =>
    tell`A healthy battery beside it, through a ${lampWatts} W lamp: ${contactAmps} A, about ${min}.`,
  liftItStepByStep: 'Lift it, step by step',
  restHThenJudge: (restHours: Shown) => tell`Rest ${restHours} h, then judge`,
  beforeThatNothingCondemnsIt: 'before that nothing condemns it',
  onTheRoad: 'On the road',
} as const;

export const JOB_SHEET = {
  jobSheet: (toLowerCase: Shown) => tell`Job sheet, ${toLowerCase}`,
  readingsTriesEvidenceVerdictNextSteps: (readings: Shown, attempts: Shown) =>
    tell`${readings} readings, ${attempts} tries, evidence, verdict, next steps, cautions, the Circuit as it was hooked up, and a place to sign.`,
  theVerdictIsNotGivenYet: 'The verdict is not given yet: the sheet says so.',
  makingThePdf: 'Making the PDF',
  saveAsPdf: 'Save as PDF',
  saveAsJson: 'Save as JSON',
  pdfIsSaved: (name: Shown) => tell`${name}.pdf is saved.`,
  thePdfCouldNotBeMade: 'The PDF could not be made. The JSON holds the same.',
} as const;

export const LEDGER = {
  causes: 'Causes',
  likeliestCauses: 'Likeliest causes',
  givenBeforeCausesWereKept: 'Given before causes were kept.',
  notReadByItselfYet: 'Not read by itself yet.',
  evidence: 'Evidence',
  evidenceWhatSpeaksForItWhat: 'Evidence: what speaks for it, what against',
  theStopIsTheEvidenceNothing: 'The stop is the evidence: nothing is weighed against it.',
  nothingMovedItYet: 'Nothing moved it yet.',
} as const;

export const OWNER_PAGE = {
  makingThePdf: 'Making the PDF',
  saveThePageAsPdf: 'Save the page as PDF',
  giveTheVerdictFirstThePage: 'Give the verdict first: the page says what it says.',
  isSaved: (name: Shown) => tell`${name} is saved.`,
  thePdfCouldNotBeMade: 'The PDF could not be made. Read it out instead.',
} as const;

export const OWNER_PDF = {
  datesToKeep: 'Dates to keep',
  pointAPhoneAtTheCode: 'Point a phone at the code to take the dates into its calendar.',
  forTheOwner: (toLowerCase: Shown) => tell`For the owner, ${toLowerCase}`,
  forTheOwner2: 'For the owner',
} as const;

export const RECHECK = {
  chargedToFullThenStood24: 'Charged to full, then stood 24 h',
  chargeItToFullAndLet:
    'Charge it to full and let it stand for a day: before that no figure tells flat from worn.',
  whereItIsRead: (unit: Shown) => tell`Where it is read, ${unit}`,
  rest: ', rest',
  rest2: 'Rest',
  tested: ', tested',
  tested2: 'Tested',
  ofRating: (tested2: Shown) => tell`${tested2}, % of rating`,
  lowestWhileItCranksV: 'Lowest while it cranks, V',
  giveTheFinalVerdict: (name: Shown) => tell`Give the final verdict: ${name}`,
  readTheRestVoltsOfEach: 'Read the rest volts of each battery; a tester and a crank make it surer.',
  restVolts: 'Rest volts',
  restVoltsTypeAFigure: 'Rest volts: type a figure.',
  testedTypeTheShareOfIts: 'Tested: type the share of its rating in per cent, up to 200.',
  lowestWhileItCranksNoMore: (sum: Shown) => tell`Lowest while it cranks: no more than the ${sum} at rest.`,
  colder: 'Colder',
  warmer: 'Warmer',
} as const;

export const SHEET_PDF = {
  voltrekJobSheet: (toLowerCase: Shown) => tell`Voltrek job sheet, ${toLowerCase}`,
  pageOf: (sTANDING_CAUTION: Shown, callNumber: Shown, page: Shown, pages: Shown) =>
    tell`${sTANDING_CAUTION}  ${callNumber}, page ${page} of ${pages}`,
  jobSheet: 'Job sheet',
  to: (closedAt: Shown) => tell` to ${closedAt}`,
  stillOpen: ', still open',
  readings: 'Readings',
  circuit: 'Circuit',
  evidence: 'Evidence',
  next: 'Next',
  notGivenYet: ' (not given yet)',
  likeliest: (causes: Shown) => tell`Likeliest: ${causes}`,
  noneTaken: 'None taken.',
  mendedHere: 'Mended here',
  tries: 'Tries',
  stopped: 'Stopped',
  nothingMovedTheVerdict: 'Nothing moved the verdict.',
  toBeSet: 'to be set',
  cautions: 'Cautions',
  setAgainAfterPowerLoss: 'Set again after power loss',
  overriddenAndWhy: 'Overridden, and why',
  technician: (crewName: Shown) => tell`Technician, ${crewName}`,
  driverOrOwnerToldAndUnderstood: 'Driver or owner: told and understood',
} as const;

export const SHEET_TEXT = {
  tryRolled: (a: Shown, toLowerCase: Shown) => tell`Try ${a}, rolled: ${toLowerCase}`,
  withHelp: 'with help',
  byItself: 'by itself',
  lowest: (lowestVolts: Shown) => tell`, lowest ${lowestVolts}`,
  tryS: (a: Shown, help: Shown, toLowerCase: Shown, seconds: Shown, lowest: Shown) =>
    tell`Try ${a}, ${help}: ${toLowerCase}, ${seconds} s${lowest}`,
  itDoes: (sYMPTOM_WORDS: Shown) => tell`It does: ${sYMPTOM_WORDS}`,
} as const;

export const VERDICT = {
  practiseIt: 'Practise it',
  closeTheJob: 'Close the job?',
  theLogIsKeptAsIt: 'The log is kept as it is. Nothing is added to a closed job but its follow-ups.',
  closeIt: 'Close it',
  leaveItOpen: 'Leave it open',
  evidence: 'Evidence',
  next: 'Next',
  recheck: 'Recheck',
  changeBattery: 'Change battery',
  owner: 'Owner',
  jobSheet: 'Job sheet',
  verdict: 'Verdict',
  finalAfterTheRecheck: 'final, after the recheck',
  asGiven: 'as given',
  working: 'working',
  overWhatIsRecordedSoFar: 'over what is recorded so far',
  mendedHere: (mendedPart: Shown, proof: Shown) => tell`Mended here: ${mendedPart}; ${proof}.`,
  wouldChangeIt: (chance: Shown, ask: Shown, battery: Shown) =>
    tell`Would change it, ${chance}: ${ask}${battery}`,
  closeTheJob2: 'Close the job',
  partOfTheVerdict: 'Part of the verdict',
  vehicle: 'Vehicle',
  battery: 'Battery',
  followUps: 'Follow-ups',
  now: 'now',
  fitAnotherBattery: 'Fit another battery:',
  hasWhatItMustBeAnd: 'has what it must be and the order.',
  closed: 'Closed ',
  backToTheBoard: '. Back to the board',
  backToTheBoardJobLeft: 'Back to the board, job left open',
  giveVerdict: 'Give verdict: ',
  weighingWhatWasFound: 'Weighing what was found',
  theVerdictCouldNotBeWorked: 'The verdict could not be worked out. Open Checks and come back to try again.',
} as const;

export const WORKSHOP_NOTE = {
  tellTheWorkshop: 'Tell the workshop',
  copyAsText: 'Copy as text',
  thisDeviceDoesNotLetIt: 'This device does not let it be copied.',
} as const;
