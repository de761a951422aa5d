import { type Shown, tell } from '../tell';

/** Words of the screens of atlas, one list a part. */

export const ATLAS_PAGE = {
  csv: 'CSV',
  json: 'JSON',
  atlas: 'Atlas',
  machines: (total: Shown) => tell`${total} machines`,
  searchMachines: 'Search machines',
  makerModelClassPlaceOfThe: 'maker, model, class, place of the battery',
  import: 'Import',
  schema: 'Schema',
  noServerTheAtlasAsOf: (at: Shown) => tell`No server: the atlas as of ${at}.`,
  thePhotoIsKeptHereIt: 'The photo is kept here. It is sent when the server answers.',
  vBattery: (machineClass: Shown, systemVolts: Shown, places: Shown, confidence: Shown) =>
    tell`${machineClass}, ${systemVolts} V, battery ${places}${confidence}`,
  noMachineMatchesTryItsClass: 'No machine matches. Try its class: unknown car.',
  drawing: 'Drawing',
} as const;

export const ENTRY_VIEW = {
  standsForAClassNobodyHas: 'Stands for a class: nobody has looked at the machine itself.',
  itIsSo: 'It is so',
  correctIt: 'Correct it',
  addAPhoto: 'Add a photo',
  battery: (index: Shown) => tell`battery ${index}`,
  ventHose: ', vent hose',
  engine: 'engine',
  cyl: ' cyl',
  wakesDoesNotCrank: 'wakes, does not crank',
  under: 'under: ',
  tools: 'tools: ',
  never: 'Never:',
  setAgainAfterPowerLoss: (join: Shown) => tell`Set again after power loss: ${join}.`,
  photo: 'Photo ',
  by: ' by ',
  history: 'History',
} as const;
