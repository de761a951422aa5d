import { DeviceActions, deviceFeature } from './device-state';

describe('what this device holds', () => {
  const { reducer } = deviceFeature;
  const nothing = { waiting: [], parked: [], refused: [], errands: [] };

  it('is not known before it was looked for, though nothing was found', () => {
    const begun = reducer(undefined, { type: 'begin' });
    expect(begun.isLookedFor).toBeFalse();
    expect(reducer(begun, DeviceActions.restored(nothing)).isLookedFor).toBeTrue();
  });
});
