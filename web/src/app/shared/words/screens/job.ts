import { type Shown, tell } from '../tell';

/** Words of the screens of job, one list a part. */

export const DRIVER_SAYS_DIALOG = {
  theDriverSays: 'The driver says',
  whatWasLeftOn: 'What was left on',
  hoursOn: 'Hours on',
  done: 'Done',
  fewerHours: 'Fewer hours',
  moreHours: 'More hours',
} as const;

export const GUARD_LAMP = {
  itWarns: 'It warns',
  itStaysDark: 'It stays dark',
  theBatteryReads: (sum: Shown) => tell`The battery reads ${sum}. `,
} as const;

export const MAKE_SAFE_DIALOG = {
  makeSafe: 'Make safe',
  nobodyCranksClampsNeverTouchEach:
    'Nobody cranks. Clamps never touch each other. Look away from the battery.',
  done: (action: Shown) => tell`Done: ${action}`,
  everythingIsOff: 'Everything is off.',
  nothingIsConnectedAndNothingIs: 'Nothing is connected and nothing is switched on.',
  backToTheJob: 'Back to the job',
  close: 'Close',
} as const;

export const MEND_HERE = {
  mendItHere: 'Mend it here',
  mendItHereFirstItAlone: 'Mend it here first: it alone may start it',
  clearDownBeforeASpannerTouches: 'Clear down before a spanner touches a post.',
  mended: (part: Shown) => tell`Mended: ${part}.`,
} as const;

export const NEXT_ACTION = {
  hold: 'Hold: ',
} as const;

export const OPTION_NAME = {
  atV: (outputVolts: Shown) => tell`at ${outputVolts} V`,
  bothInSeries: 'both in series',
  oneOfThem: 'one of them',
  across: (battery: Shown) => tell`across ${battery}`,
} as const;

export const REPAIR_PROMPT = {
  aSpannerSlippingToBodyworkNow: (slipAmps: Shown) => tell`A spanner slipping to bodywork now: ${slipAmps}.`,
  theMakersInstructionsComeFirstWhat:
    "The maker's instructions come first. What a hand cannot mend here is for a workshop.",
  mended: 'Mended',
  notMended: 'Not mended',
} as const;

export const ROLL_PROMPT = {
  rollingStart: 'Rolling start',
  neverWithAnAutomaticAHybrid: 'Never with an automatic, a hybrid or an EV, and never onto a road.',
  itRuns: 'It runs',
  itDoesNotRun: 'It does not run',
  notRolled: 'Not rolled',
} as const;

export const SOMETHING_ELSE_DIALOG = {
  howDoTheClampsStandNow: 'How do the clamps stand now?',
  whichClamp: 'Which clamp',
  itIsOn: (clamp: Shown) => tell`${clamp} is on`,
  casualty: 'casualty',
  free: 'free',
  onWhatMetal: 'on what metal',
  cleanMetalAsMeant: 'clean metal, as meant',
  whatElseIsSo: 'What else is so',
  thatIsHowItStands: 'That is how it stands',
  asPlanned: 'As planned',
  donorRuns: 'donor runs',
  pluggedIn: 'plugged in',
  switchedOn: 'switched on',
  red: 'Red',
  black: 'Black',
  end: (black: Shown, rescue: Shown) => tell`${black}, ${rescue} end`,
  spareBattery: 'spare battery +',
  spareBattery2: 'spare battery -',
} as const;

export const STEP_CARD = {
  gapItOpens: 'gap it opens',
  acrossTheGap: 'across the gap',
  itCarriesNow: 'it carries now',
  whenItIsOn: 'when it is on',
  gasHere: 'gas here',
  clampOntoMetalLookAtIt: (pop: Shown) => tell`${pop} Clamp onto metal, look at it, tug it.`,
  keepItClearOfAllMetal: 'Keep it clear of all metal and of the other clamps. Lay it down dry.',
  idleNobodyBetweenTheVehicles: 'Idle. Nobody between the vehicles.',
  keyOff: 'Key off.',
  atItsOwnSwitch: 'At its own switch.',
  atTheirPlug: 'At their plug, away from the battery. Push it home in one move.',
  raisedRevs: 'Raise it to 1,500 to 2,000 rpm and hold it. Nobody between the vehicles.',
  atTheWallJointsOfThe: 'At the wall. Joints of the extension outside the bay, no trip hazard.',
  atTheWallBeforeAnyClamp: 'At the wall, before any clamp.',
  theBatteryIsOff: (metres: Shown) => tell` The battery is ${metres} off.`,
} as const;

export const STEP_LINE = {
  done: 'done',
  minAsPlanned: (minutes: Shown) => tell`${minutes} min, as planned`,
} as const;

export const STEP_WORDS = {
  side: 'side',
  casualty: 'casualty',
  charger: 'charger',
  booster: 'booster',
  pack: 'pack',
  donor: 'donor',
  red: 'Red',
  black: 'Black',
  on: (black: Shown, rescue: Shown, pointId: Shown) => tell`${black} on ${rescue} ${pointId}`,
  off: (black: Shown, rescue: Shown, pointId: Shown) => tell`${black} off ${rescue} ${pointId}`,
  startTheDonor: 'Start the donor',
  stopTheDonor: 'Stop the donor',
  switchTheOn: (sourceName: Shown) => tell`Switch the ${sourceName} on`,
  switchTheOff: (sourceName: Shown) => tell`Switch the ${sourceName} off`,
  plugTheCellsIn: 'Plug the cells in',
  unplugTheCells: 'Unplug the cells',
  plugTheChargerIn: 'Plug the charger in',
  unplugTheCharger: 'Unplug the charger',
  noted: 'Noted',
  noLonger: 'No longer',
  spareBattery: 'spare battery',
  hobbyPack: 'hobby pack',
  redPost: 'red post',
  starterStud: 'starter stud',
  groundPoint: 'ground point',
  clampIsOn: (black: Shown) => tell`${black} clamp is on`,
  clampIsOff: (black: Shown) => tell`${black} clamp is off`,
  donorRuns: 'Donor runs',
  donorIsStopped: 'Donor is stopped',
  itIsOn: 'It is on',
  itIsOff: 'It is off',
  itIsPluggedIn: 'It is plugged in',
  itIsUnplugged: 'It is unplugged',
  thatIsSo: 'That is so',
} as const;

export const SUSPECTS = {
  suspects: 'Suspects',
  working: 'working',
  nextCheck: 'Next check',
  under1: 'under 1',
  min: (minutes: Shown) => tell`${minutes} min`,
  goOnToPlan: 'Go on to Plan',
  readItOnMeasure: 'Read it on Measure',
  tapItAbove: 'Tap it above.',
  take: 'Take',
  skip: 'Skip',
  between: (settles: Shown) => tell`between ${settles}`,
  nothingLeftToCheckTellsMore: 'Nothing left to check tells more. Go on.',
  raisedMostBy: (replace: Shown) => tell`raised most by: ${replace}`,
} as const;

export const COUNTDOWN = {
  wait: 'Wait',
} as const;

export const JOB_PAGE = {
  casualty: 'casualty',
  houseRulesChangedSinceThisJob: (words: Shown) =>
    tell`House rules changed since this job was opened: ${words}.`,
  workByTheNewOnes: 'Work by the new ones',
  keepTheOldOnes: 'Keep the old ones',
  circuit: 'Circuit',
  close: 'Close',
  full: 'Full',
  undo: 'Undo',
  makeSafe: 'Make safe',
  noServerAndThisJobIs: 'No server, and this job is not on this device yet. It opens when there is one.',
  thisJobIsFetchedOnce: 'This job is fetched once somebody has signed in.',
  openingTheJob: 'Opening the job.',
} as const;
