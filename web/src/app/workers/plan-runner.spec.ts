import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import type { Findings } from '@voltrek/core/belief';
import type { PlanCase } from '@voltrek/core/plan';
import { type PlanRun, PlanRunner } from './plan-runner';

describe('PlanRunner', () => {
  const never = () => new Promise<never>(() => undefined);
  const made = (): PlanRunner => TestBed.runInInjectionContext(() => new PlanRunner());

  it('lets go of what is asked when it is stopped', async () => {
    const runner = made();
    const run = runner.begin();
    const asked = run.ask(never);
    runner.stop();
    expect(run.isCurrent()).toBeFalse();
    await expectAsync(asked).toBeRejectedWithError('stopped');
  });

  it('is stopped with the component that provides it', async () => {
    @Component({
      template: '',
      changeDetection: ChangeDetectionStrategy.OnPush,
      providers: [PlanRunner],
    })
    class Page {
      readonly runner = inject(PlanRunner);
    }
    const page = TestBed.createComponent(Page);
    const run = page.componentInstance.runner.begin();
    const asked = run.ask(never);
    page.destroy();
    expect(run.isCurrent()).toBeFalse();
    await expectAsync(asked).toBeRejectedWithError('stopped');
  });

  it('lets nobody hear of progress once the answer is there', async () => {
    const run = made().begin();
    const heard: number[] = [];
    let tell: (share: number) => void = () => undefined;
    await run.ask((_, subscribe) => {
      tell = subscribe((share: number) => heard.push(share));
      tell(0.5);
      return Promise.resolve();
    });
    tell(1);
    expect(heard).toEqual([0.5]);
  });

  it('lets nobody hear of a round that a newer one has ended', async () => {
    const runner = made();
    const heard: number[] = [];
    let tell: (share: number) => void = () => undefined;
    const asked = runner.begin().ask((_, subscribe) => {
      tell = subscribe((share: number) => heard.push(share));
      return never();
    });
    runner.begin();
    tell(0.5);
    await expectAsync(asked).toBeRejectedWithError('stopped');
    expect(heard).toEqual([]);
    runner.stop();
  });

  it('ends a round when the next begins, and leaves the next alone', async () => {
    const runner = made();
    const first = runner.begin().ask(never);
    const second = runner.begin();
    await expectAsync(first).toBeRejectedWithError('stopped');
    expect(second.isCurrent()).toBeTrue();
    await expectAsync(second.ask(() => Promise.resolve(7))).toBeResolvedTo(7);
    runner.stop();
  });

  it('closes the lines of those who hear, whether it is answered, fails or is stopped', async () => {
    // Of the lines made here alone: others may be made at any time, by what an earlier test left running; and a worker that releases
    // another of its own accord closes that one, and one of these a second time.
    const lines: MessagePort[] = [];
    let isAsking = false;
    const make = MessageChannel;
    spyOn(window, 'MessageChannel').and.callFake(function () {
      const channel = new make();
      if (isAsking) lines.push(channel.port1);
      return channel;
    });
    const close = spyOn(MessagePort.prototype, 'close').and.callThrough();
    const areClosed = (): boolean[] => {
      const closed = new Set(close.calls.all().map(({ object }) => object));
      return lines.map((line) => closed.has(line));
    };
    const asks: Parameters<PlanRun['ask']>[0] = (worker, subscribe) => {
      isAsking = true;
      const asked = worker.odds(
        {} as PlanCase,
        {} as Findings,
        1,
        subscribe(() => undefined),
      );
      isAsking = false;
      return asked;
    };
    const runner = made();
    await expectAsync(runner.begin().ask(asks)).toBeRejected();
    expect(areClosed()).toEqual([true]);
    const stopped = runner.begin().ask((worker, subscribe) => {
      for (let i = 0; i < 2; i++) void asks(worker, subscribe).catch(() => undefined);
      return never();
    });
    expect(areClosed()).toEqual([true, false, false]);
    runner.stop();
    await expectAsync(stopped).toBeRejectedWithError('stopped');
    expect(areClosed()).toEqual([true, true, true]);
  });

  describe('whose work is asked for often', () => {
    let started: Worker[];
    let ended: jasmine.Spy;
    beforeEach(() => {
      started = [];
      ended = spyOn(Worker.prototype, 'terminate').and.callThrough();
      const start = Worker;
      spyOn(window, 'Worker').and.callFake(function (...of: ConstructorParameters<typeof Worker>) {
        const worker = new start(...of);
        started.push(worker);
        return worker;
      });
    });
    /** Of those started here: what an earlier test left running may end at any time. */
    const endedOnes = (): Worker[] => {
      const all = new Set(ended.calls.all().map(({ object }) => object as Worker));
      return started.filter((worker) => all.has(worker));
    };
    const answered = (run: PlanRun) => run.ask(() => Promise.resolve(7));

    it('leaves its worker to whoever asks for the same work, and to nobody else', async () => {
      const first = made();
      await answered(first.begin('ways'));
      first.stop();
      const other = made();
      await answered(other.begin('crowd'));
      expect(started.length).toBe(2);
      await answered(made().begin('ways'));
      expect(started.length).toBe(2);
      expect(endedOnes()).toEqual([]);
    });

    it('ends a worker that is still at it, that failed, and one of other work', async () => {
      const runner = made();
      const stopped = runner.begin('ways').ask(never);
      runner.stop();
      await expectAsync(stopped).toBeRejectedWithError('stopped');
      await expectAsync(runner.begin('ways').ask(() => Promise.reject(new Error('no')))).toBeRejected();
      runner.stop();
      await answered(runner.begin());
      runner.stop();
      expect(started.length).toBe(3);
      expect(endedOnes()).toEqual(started);
    });

    it('keeps no more than one, and none that died', async () => {
      const [one, two] = [made(), made()];
      await Promise.all([answered(one.begin('ways')), answered(two.begin('ways'))]);
      one.stop();
      two.stop();
      expect(endedOnes()).toEqual([started[1]!]);
      started[0]!.dispatchEvent(new ErrorEvent('error', { message: 'out of memory' }));
      await Promise.resolve();
      await expectAsync(answered(one.begin('ways'))).toBeResolvedTo(7);
      expect(started.length).toBe(3);
    });
  });
});
