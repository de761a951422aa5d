import { type Shown, tell } from '../tell';

/** Words of the screens of vehicles, one list a part. */

export const VEHICLE_DIALOG = {
  whosePhone: 'Say whose phone that is.',
  plate: 'Plate',
  fleetNumber: 'Fleet number',
  serialNumber: 'Serial number',
  owner: 'Owner',
  phone: 'Phone',
  notes: 'Notes',
  newVehicle: 'New vehicle',
  changeTheVehicle: 'Change the vehicle',
  model: (model: Shown) => tell`Model${model}`,
  makerModelOrClassUnknownCar: 'maker, model or class; unknown car',
  addIt: 'Add it',
  keepItSo: 'Keep it so',
  leaveIt: 'Leave it',
} as const;

export const VEHICLE_PAGE = {
  change: 'Change',
  owner: 'Owner',
  forgotten: (erasedAt: Shown) => tell`forgotten ${erasedAt}`,
  whatIsKnownOfThem: 'What is known of them',
  forgetNamePhoneAndPlatesFor: 'Forget name, phone and plates for good',
  forgetThem: 'Forget them',
  notKnown: 'not known',
  numbers: 'Numbers',
  fleet: 'fleet ',
  notes: 'Notes',
  batteries: 'Batteries',
  battery: 'Battery ',
  marked: ', marked ',
  inSince: (rating: Shown, dateMark: Shown, since: Shown) => tell`${rating}${dateMark}, in since ${since}`,
  noneIsKnownYetItsFirst: 'None is known yet: its first job meets them.',
  promised: 'Promised',
  visits: 'Visits',
  underWay: 'under way',
  itHasNotBeenHereBefore: 'It has not been here before.',
  fetchingTheVehicle: 'Fetching the vehicle.',
} as const;

export const VEHICLES_PAGE = {
  vehicles: 'Vehicles',
  files: 'Files',
  newVehicle: 'New vehicle',
  searchVehicles: 'Search vehicles',
  plateFleetOrSerialNumberMaker: 'plate, fleet or serial number, maker, model',
  noVehicleIsKnownByThat: 'No vehicle is known by that.',
} as const;
