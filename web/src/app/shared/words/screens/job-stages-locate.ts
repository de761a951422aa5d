import { type Shown, tell } from '../tell';

/** Words of the screens of job, stages, locate, one list a part. */

export const IDENTIFY = {
  ccaAmps: 'CCA, A',
  knownToTheAtlas: 'Known to the atlas?',
  makerModelClassPlaceOfThe: 'maker, model, class, place of the battery',
  battery: (machineClass: Shown, places: Shown) => tell`${machineClass}, battery ${places}`,
  notInTheAtlasFindIt: 'Not in the atlas: find it below.',
  notKnownWhatIsIt: 'Not known: what is it?',
  whatDoYouSee: 'What do you see?',
  lookHereLikeliestFirstTapWhere: 'Look here, likeliest first. Tap where you found the battery',
  keepItForTheNextWho: 'Keep it for the next who meets it',
  maker: 'Maker',
  model: 'Model',
  chemistry: 'Chemistry',
  capacityAh: 'Capacity, Ah',
  bankAh: 'Farads of the bank / 250, Ah',
  engineL: 'Engine, L',
  redPostFound: 'red post found',
  diesel: 'diesel',
  photo: 'Photo: ',
  addAPhoto: 'Add a photo',
  keepingIt: 'Keeping it',
  tapWhereTheBatteryIs: 'Tap where the battery is',
  keepItAndGoOn: 'Keep it and go on',
  sayMakerAndModel: 'Say maker and model',
} as const;

export const LOCATE_HEAD = {
  points: 'Points',
  parkTheDonor: 'Park the donor',
  anotherMachine: 'Another machine',
  locate: 'Locate',
  partOfLocate: 'Part of Locate',
  unknownMachineFindItsBatteryFirst: 'unknown machine: find its battery first',
  ventHose: ', vent hose',
} as const;

export const LOCATE_POINTS = {
  never: 'Never:',
  under: 'Under: ',
  tools: 'Tools: ',
  whichIsPositiveTwoSignsMust: 'Which is positive? Two signs must agree, then the meter proves it',
  foundPositiveIsSure: 'Found, positive is sure',
  tickTwoSignsOfPositive: 'Tick two signs of positive',
} as const;

export const PARK_DONOR = {
  placeArrowsMoveTheDonorComma: 'Place: arrows move the donor, comma and full stop turn it',
  casualty: 'casualty',
  donor: 'donor',
  ofLeadNeeded: (unit: Shown) => tell`${unit} of lead needed`,
  redBlackMApart: (metres: Shown, metres2: Shown, gapMm: Shown) =>
    tell`red ${metres}, black ${metres2}; ${gapMm} m apart`,
  reaches: 'reaches',
  tooShort: 'too short',
  looking: 'Looking',
  bestPlace: 'Best place',
  turnLeft: 'Turn left',
  turnRight: 'Turn right',
  tooCloseMoveTheDonor: 'Too close: move the donor',
  parkItHere: 'Park it here',
  vehiclesMustNotTouchLeaveAt: 'Vehicles must not touch: leave at least 15 cm.',
  aLeadCannotBeKeptOff: (crossed: Shown) =>
    tell`A lead cannot be kept off a part that is ${crossed}: tie it clear or park elsewhere.`,
  donorFromTheCasualtyOfLead: (gapMm: Shown, metresNeeded: Shown) =>
    tell`Donor ${gapMm} from the casualty, ${metresNeeded} of lead needed`,
  rpmOfNeededVAtThe: (size: Shown, rpm: Shown, neededRpm: Shown, starterVolts: Shown) =>
    tell`${size}: ${rpm} rpm of ${neededRpm} needed, ${starterVolts} V at the starter`,
  doesNotTurnIt: (size: Shown) => tell`${size}: does not turn it`,
  vWhileItWakes: (size: Shown, postVolts: Shown) => tell`${size}: ${postVolts} V while it wakes`,
} as const;

export const LATCH_PART = {
  nothingOpens: 'Nothing opens?',
  opened: (place: Shown) => tell`Open: ${place}.`,
  addToAtlas: 'Found on the spot: put the place into the atlas, for whoever comes next.',
  tryNext: (place: Shown) => tell`Try: ${place}`,
  notHere: 'Not here',
  allTried: 'Everywhere was tried. Follow the maker’s rescue card, or take it away.',
  fedBy: (source: Shown, amps: Shown, seconds: Shown) =>
    tell`${source}: ${amps} A, ${seconds} s at the most.`,
  noSource: 'No small source on this van: 9 to 12 V, under 1 A. Never a pack or a donor.',
  onlyOpens: 'It opens the bonnet. It charges nothing and starts nothing.',
  itOpened: 'It opened',
  itDidNot: 'It did not open',
  leave: 'Not tried',
} as const;
