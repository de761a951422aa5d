import { type Shown, tell } from '../tell';

/** Words of the screens of battery, one list a part. */

export const BATTERIES_PAGE = {
  batteries: 'Batteries',
  sparesOfTheVansAndWhat: 'spares of the vans and what stands at the depot',
  files: 'Files',
  codeOnTheLabel: 'Code on the label',
  openItsRecord: 'Open its record',
  labelsPdf: 'Labels, PDF',
  newBattery: 'New battery',
  putItInTheRecord: 'Put it in the record',
  marked: ', marked ',
  since: (since: Shown) => tell`since ${since}`,
  noneIsLooseEveryBatterySits: 'None is loose: every battery sits in a vehicle.',
  chemistry: 'Chemistry',
  capacity: 'Capacity',
  coldCrankingAmps: 'Cold-cranking amps',
  byTheStandard: 'By the standard',
  dateMark: 'Date mark',
  whereItIs: 'Where it is',
  atTheDepot: 'at the depot',
  noBatteryHasTheCode: (trim: Shown) => tell`No battery has the code ${trim}.`,
  theLabelsCouldNotBeMade: 'The labels could not be made.',
} as const;

export const BATTERY_LABELS = {
  batteryLabels: 'Battery labels',
  marked: (dateMark: Shown) => tell`marked ${dateMark}`,
} as const;

export const BATTERY_PAGE = {
  restVolts: 'rest volts',
  strengthOfItsRating: 'strength, of its rating',
  startedWithHelp: 'started with help',
  fittedHere: 'fitted here',
  battery: (code: Shown) => tell`Battery ${code}`,
  marked: ', marked ',
  inWord: 'in',
  aVehicleWithoutAPlate: 'a vehicle without a plate',
  takenOutToTheDepot: 'Taken out, to the depot',
  chargedAtTheDepot: 'Charged at the depot',
  on: (name: Shown) => tell`On ${name}`,
  fittedIntoAVehicle: 'Fitted into a vehicle',
  scrapped: 'Scrapped',
  dottedWhatTheMachineItSits: 'Dotted: what the machine it sits in needs.',
  dashedFourInFiveBatteriesWould: (dottedWhatTheMachineItSits: Shown) =>
    tell`Dashed: four in five batteries would lie between. ${dottedWhatTheMachineItSits} Upright: it had to be helped.`,
  whatJobsLearnt: 'What jobs learnt',
  nothingHasBeenReadOfIt: 'Nothing has been read of it yet.',
  whereItHasBeen: 'Where it has been',
  readingTheRecord: 'Reading the record.',
  testItOnceAndItsTrend: 'Test it once, and its trend begins.',
  aboutNowAYear: (now: Shown, perYear: Shown, perYear2: Shown) =>
    tell`About ${now} now, ${perYear} ${perYear2} a year.`,
  thatItsMachineNeedsAt: (needShare: Shown, coldC: Shown) =>
    tell`${needShare} that its machine needs at ${coldC}`,
  atTheFiguresStartThisMachine: (first: Shown, coldC: Shown) =>
    tell`${first} At ${coldC} the figures start this machine on no battery alone: watch the trend.`,
  thatIsUnderTheReplaceIt: (first: Shown, need: Shown) =>
    tell`${first} That is under the ${need}: replace it before the cold.`,
  itStaysOverTheAsFar: (first: Shown, need: Shown) =>
    tell`${first} It stays over the ${need} as far as can be seen.`,
  asSoonAs: (earliest: Shown) => tell` as soon as ${earliest}`,
  perhapsMuchLater: ', perhaps much later',
  asLateAs: (latest: Shown) => tell`, as late as ${latest}`,
  fallsUnderTheAbout: (first: Shown, need: Shown, day: Shown, sooner: Shown, later: Shown) =>
    tell`${first} Falls under the ${need} about ${day};${sooner}${later}.`,
} as const;

export const BATTERY_TREND = {
  ofItsRating: '% of its rating',
  vAtRest: 'V at rest',
  noReadingOfItsStrengthYet: 'No reading of its strength yet',
  readingsOfItsStrengthOfIts: (count: Shown, perYear: Shown, perYear2: Shown) =>
    tell`${count} readings of its strength, ${perYear} of its rating ${perYear2} a year`,
} as const;

export const FIT_INTO = {
  plateOrNumberOfTheVehicle: 'Plate or number of the vehicle',
  as: (place: Shown) => tell`as ${place}`,
} as const;
