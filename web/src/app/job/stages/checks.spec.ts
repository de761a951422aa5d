import { TestBed } from '@angular/core/testing';
import { LIFT_STEPS, type LiftStep } from '@voltrek/core/charging';
import type { StopCondition } from '@voltrek/core/diagnosis';
import { CAR, event, opened, planned } from '../../../testing/fixtures';
import { jobHarness } from '../../../testing/job-harness';
import { Checks } from './checks';
import { StopScreen } from './stop-screen';

describe('Checks', () => {
  it('ticks what it does, and takes it back', async () => {
    const { tap, button, reported } = await jobHarness(Checks, [opened()]);
    await tap('one click');
    expect(button('one click').getAttribute('aria-pressed')).toBe('true');
    expect(reported().at(-1)!.data).toEqual(jasmine.objectContaining({ symptom: 'one-click' }));
  });

  it('takes a machine that starts and wants a check, and takes that back', async () => {
    const { tap, button, reported } = await jobHarness(Checks, [opened()]);
    await tap('starts, wants a check');
    expect(reported().at(-1)!.data).toEqual(
      jasmine.objectContaining({ check: 'try-alone', found: 'started' }),
    );
    expect(button('starts, wants a check').getAttribute('aria-pressed')).toBe('true');
    await tap('starts, wants a check');
    expect(reported().at(-1)!.type).toBe('finding.withdrawn');
  });

  it('has no word of cranks and clicks on a machine that wakes; one that was told of it stays to be taken back', async () => {
    const machine = { ...CAR, machineClass: 'ev', engine: null } as const;
    const words = async (...log: Parameters<typeof jobHarness>[1]) => {
      const { root } = await jobHarness(Checks, [opened(), ...log], { machine });
      return root.querySelector('.symptoms')!.textContent;
    };
    expect(await words()).not.toMatch(/crank|click|starts, wants/);
    TestBed.resetTestingModule();
    expect(await words(event('symptom.recorded', { symptom: 'one-click' }))).toContain('one click');
  });

  it('asks what fits the machine, and counts what is answered', async () => {
    const { root, refresh } = await jobHarness(Checks, [opened()]);
    const rows = () => [...root.querySelectorAll('.checks > div')];
    const asked = rows().map((row) => row.getAttribute('aria-label')!);
    expect(asked.some((ask) => /clutch/i.test(ask))).toBeTrue();
    expect(asked.some((ask) => /side stand|blade|isolator/i.test(ask))).toBeFalse();
    rows()[0]!.querySelector<HTMLButtonElement>('.key')!.click();
    await refresh();
    expect(root.querySelector('header .dim')!.textContent).toBe(`1 of ${rows().length} done`);
  });

  it('has other checks for a motorcycle', async () => {
    const machine = { ...CAR, machineClass: 'motorcycle', gearbox: 'none' } as const;
    const { root } = await jobHarness(Checks, [opened()], { machine });
    expect(root.textContent).toMatch(/kill switch/i);
    expect(root.textContent).not.toMatch(/clutch switch/i);
  });

  it('warns of a bad joint before any jump', async () => {
    const { root } = await jobHarness(Checks, [
      opened(),
      event('finding.recorded', { check: 'look-joints', found: 'deposits' }),
    ]);
    expect(root.querySelector('vt-mend-here')!.textContent).toContain('Clean and tighten the positive clamp');
  });

  it('raises the stop that a damaged case is', async () => {
    const { root, refresh, reported } = await jobHarness(Checks, [opened()]);
    const row = [...root.querySelectorAll('.checks > div')].find((r) =>
      /case/i.test(r.getAttribute('aria-label')!),
    )!;
    row.querySelector<HTMLButtonElement>('.fault')!.click();
    await refresh();
    expect(reported().map((e) => e.type)).toEqual(['finding.recorded', 'stop.raised']);
  });
});

describe('Stop screen', () => {
  const scene = (ambientC: number) =>
    event('scene.recorded', {
      ambientC,
      place: 'yard',
      sloping: false,
      dark: true,
      enclosed: false,
      mainsNear: false,
    });

  it('says what is wrong and what to do instead, and offers no hook-up', async () => {
    const { root } = await jobHarness(StopScreen, [opened(), event('stop.raised', { stop: 'frozen' })]);
    expect(root.querySelector('[role=alert]')!.textContent).toMatch(/frozen/i);
    expect(root.querySelector('.instead')!.textContent.length).toBeGreaterThan(20);
    expect(root.textContent).toContain('No hook-up is offered');
    expect(root.querySelector('.problem')).toBeNull();
  });

  const joinedUnder = (stop: StopCondition) =>
    jobHarness(
      StopScreen,
      [
        opened(),
        event('polarity.proved', { signs: ['mark', 'meter'] }),
        planned('lithium@12'),
        event('clamp.attached', { clamp: 'redCasualty', pointId: 'plus' }),
        event('stop.raised', { stop }),
      ],
      {},
      { rescue: null },
    );

  it('takes off what is on, one act at a time, before the verdict', async () => {
    const { root, tap, reported } = await joinedUnder('case-damaged');
    expect(root.querySelector('.problem')!.textContent).toContain('Red off casualty battery +');
    await tap(/Red clamp is off/);
    expect(reported().at(-1)).toEqual(jasmine.objectContaining({ type: 'clamp.detached' }));
    expect(root.querySelector('.next')!.textContent).toContain('Go to the verdict');
  });

  it('has nobody touch a clamp where that may spark in gas', async () => {
    const { root } = await joinedUnder('gas-smell');
    expect(root.querySelector('.problem')!.textContent).toContain('Leave them as they are');
    expect(root.querySelector('.next')!.textContent).toContain('Go to the verdict');
  });

  it('has a stop that the readings show read again, and takes it back by no word', async () => {
    const reversed = event('reading.taken', {
      kind: 'rest',
      volts: -11.2,
      battery: 0,
      tempC: -4,
      source: 'typed',
    });
    const shown = await jobHarness(StopScreen, [opened(), reversed]);
    expect(shown.root.textContent).toContain('Read it again');
    expect(shown.root.textContent).not.toContain('It no longer stands');
  });

  it('lets it be said that a battery has thawed that froze in a colder hour', async () => {
    const ice = event('reading.taken', {
      kind: 'rest',
      volts: 11.2,
      battery: 0,
      tempC: -12,
      source: 'typed',
    });
    const shown = await jobHarness(StopScreen, [opened(), scene(-12), ice, scene(5)]);
    expect(shown.root.textContent).toContain('It no longer stands');
  });

  it('takes the lamp of a lift off first, whatever stage it stands in for', async () => {
    const step = (of: LiftStep) => event('lift.confirmed', { battery: 0, step: of });
    const { button, tap, reported } = await jobHarness(StopScreen, [
      opened(),
      scene(15),
      event('reading.taken', { kind: 'rest', volts: 2.5, battery: 0, tempC: 15, source: 'typed' }),
      ...LIFT_STEPS.slice(0, 3).map(step),
      event('lift.read', { volts: 3, isWarm: true }),
    ]);
    expect(button(/Lamp is off/).disabled).toBeFalse();
    await tap(/Lamp is off/);
    expect(reported().at(-1)).toEqual(
      jasmine.objectContaining({ type: 'lift.confirmed', data: { battery: 0, step: 'part-lamp' } }) as never,
    );
  });

  it('takes a stop back only for a reason, which is logged', async () => {
    const { tap, reported } = await jobHarness(StopScreen, [
      opened(),
      event('stop.raised', { stop: 'frozen' }),
    ]);
    await tap('It no longer stands');
    const field = document.querySelector('textarea')!;
    const go = [...document.querySelectorAll<HTMLButtonElement>('.modal button')].find((b) =>
      b.textContent.includes('log it'),
    )!;
    expect(go.disabled).toBeTrue();
    field.value = 'Thawed for an hour in the hall';
    field.dispatchEvent(new Event('input'));
    await new Promise((resolve) => setTimeout(resolve));
    go.click();
    // The dialog fades out before it is taken away.
    while (document.querySelector('.modal')) await new Promise((resolve) => setTimeout(resolve, 20));
    expect(reported().at(-1)!.type).toBe('stop.withdrawn');
    expect(reported().at(-1)!.data).toEqual(
      jasmine.objectContaining({ stop: 'frozen', reason: 'Thawed for an hour in the hall' }),
    );
  });
});
