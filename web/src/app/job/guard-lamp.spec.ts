import { event, opened } from '../../testing/fixtures';
import { jobHarness } from '../../testing/job-harness';
import { GuardLamp } from './guard-lamp';

const rest = (volts: number) =>
  event('reading.taken', { kind: 'rest', volts, battery: 0, tempC: 5, source: 'typed' });

describe('Guard lamp', () => {
  it('stops the hook-up where it warns', async () => {
    const { tap, reported } = await jobHarness(GuardLamp, [opened(), rest(11.2)]);
    await tap('It warns');
    expect(reported().map((e) => e.data)).toEqual([{ stop: 'polarity-unknown' }]);
  });

  it('tells by the rest volts why it stays dark', async () => {
    const { tap, root } = await jobHarness(GuardLamp, [opened(), rest(1.2)]);
    await tap('It stays dark');
    expect(root.querySelector('[role=status]')!.textContent).toContain(
      'The battery reads 1.20 V. That is under what a guard can sense',
    );
  });

  it('looks to clamp and pack where the battery has enough for it', async () => {
    const { tap, root } = await jobHarness(GuardLamp, [opened(), rest(11.2)]);
    await tap('It stays dark');
    expect(root.querySelector('[role=status]')!.textContent).toContain('a clamp sits on paint or dirt');
  });
});
