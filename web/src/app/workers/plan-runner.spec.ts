import { PlanRunner } from './plan-runner';

describe('PlanRunner', () => {
  const never = () => new Promise<never>(() => undefined);

  it('lets go of what is asked when it is stopped', async () => {
    const runner = new PlanRunner();
    const run = runner.begin();
    const asked = run.ask(never);
    runner.stop();
    expect(run.isCurrent()).toBeFalse();
    await expectAsync(asked).toBeRejectedWithError('stopped');
  });

  it('ends a round when the next begins, and leaves the next alone', async () => {
    const runner = new PlanRunner();
    const first = runner.begin().ask(never);
    const second = runner.begin();
    await expectAsync(first).toBeRejectedWithError('stopped');
    expect(second.isCurrent()).toBeTrue();
    await expectAsync(second.ask(() => Promise.resolve(7))).toBeResolvedTo(7);
    runner.stop();
  });
});
