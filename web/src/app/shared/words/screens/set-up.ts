import { type Shown, tell } from '../tell';

/** Words of the screens of set, up, one list a part. */

export const SET_UP_PAGE = {
  setUp: 'Set-up',
  everythingHereCanBeChangedLater: 'Everything here can be changed later, under Kit and Atlas.',
  whoWorksHere: 'Who works here',
  name: 'Name',
  roleOf: 'Role of ',
  the: 'the ',
  oneMore: 'One more',
  vansAndWhatIsOnThem: 'Vans, and what is on them',
  nameOfTheVan: 'Name of the van',
  kitOf: 'Kit of ',
  van: '. van',
  oneMoreVan: 'One more van',
  atlas: 'Atlas',
  withTheModelsThatShip: 'With the models that ship',
  emptyToBeFilledByHand: 'Empty, to be filled by hand or import',
  toTheBoard: 'To the board',
  van1: 'Van 1',
  van2: (list: Shown) => tell`Van ${list}`,
} as const;
