import { type HookupAction, NOTHING_CONNECTED } from '@voltrek/core/hookup';
import { CAR, opened, workOf } from '../../testing/fixtures';
import { actionDone, actionTitle } from './step-words';

describe('step words', () => {
  const events = [opened()];
  const work = workOf(events);
  const say = (action: HookupAction, hookup = NOTHING_CONNECTED): string =>
    actionTitle(action, work, null, hookup);

  it('name the colour, the side and the place', () => {
    expect(say({ kind: 'attach', clamp: 'redCasualty', pointId: 'plus' })).toBe('Red on casualty battery +');
    expect(say({ kind: 'attach', clamp: 'blackCasualty', pointId: 'ground' })).toBe(
      'Black on casualty ground point',
    );
  });

  it('name the place a clamp is taken off from', () => {
    const hookup = { ...NOTHING_CONNECTED, clamps: { ...NOTHING_CONNECTED.clamps, blackCasualty: 'ground' } };
    expect(say({ kind: 'detach', clamp: 'blackCasualty' }, hookup)).toBe('Black off casualty ground point');
  });

  it('confirm with what hands have done', () => {
    expect(actionDone({ kind: 'attach', clamp: 'blackSource', pointId: 'minus' }, CAR)).toBe(
      'Black clamp is on',
    );
    expect(actionDone({ kind: 'donor-engine', running: false }, CAR)).toBe('Donor is stopped');
  });
});
