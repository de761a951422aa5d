import { opened, planned } from '../../../../testing/fixtures';
import { jobHarness } from '../../../../testing/job-harness';
import { PlanRunner } from '../../../workers/plan-runner';
import { ParkDonor } from './park-donor';

describe('ParkDonor', () => {
  const show = () => jobHarness(ParkDonor, [opened(), planned('donor+heavy')]);
  const figures = (root: HTMLElement): string =>
    root.querySelector('.side')!.textContent.replace(/\s+/g, ' ');
  const place = (root: HTMLElement): HTMLElement => root.querySelector('.place')!;
  const press = (root: HTMLElement, key: string, shiftKey = false): boolean =>
    place(root).dispatchEvent(new KeyboardEvent('keydown', { key, shiftKey, cancelable: true }));

  it('tells how much lead the place needs, and which set reaches', async () => {
    const { root } = await show();
    expect(figures(root)).toMatch(/\d\.\d m of lead needed/);
    expect(figures(root)).toContain('Heavy set');
  });

  it('needs more lead the farther the donor is moved away', async () => {
    const { root, fixture } = await show();
    const needed = (): number => Number(/([\d.]+) m of lead/.exec(figures(root))![1]);
    const before = needed();
    for (let i = 0; i < 8; i++) press(root, 'ArrowLeft', true);
    await fixture.whenStable();
    const left = needed();
    for (let i = 0; i < 16; i++) press(root, 'ArrowRight', true);
    await fixture.whenStable();
    expect(Math.max(left, needed())).toBeGreaterThan(before);
  });

  it('takes the arrows for itself, and leaves other keys to the page', async () => {
    const { root } = await show();
    expect(press(root, 'ArrowUp')).toBeFalse();
    expect(press(root, 'u')).toBeTrue();
  });

  it('warns of vehicles that touch, and parks none so', async () => {
    const { root, fixture, tap, button } = await show();
    await tap('Nose to nose');
    for (let i = 0; i < 20 && !root.querySelector('.caution'); i++) {
      press(root, 'ArrowDown');
      await fixture.whenStable();
    }
    expect(root.querySelector('.caution')?.textContent).toContain('touch');
    expect(button(/Too close/).disabled).toBeTrue();
  });

  it('logs the place with its gap and the lead it needs', async () => {
    const { tap, reported } = await show();
    await tap('Nose to nose');
    await tap(/Park it here/);
    const [parked] = reported();
    expect(parked!.type).toBe('donor.parked');
    const { gapMm, metresNeeded, turnedDeg } = parked!.data as Record<string, number>;
    expect(gapMm!).toBeGreaterThan(0);
    expect(metresNeeded!).toBeGreaterThan(0.3);
    expect(Math.abs(turnedDeg!)).toBeLessThanOrEqual(180);
  });

  it('has the best place searched in a worker, and can be moved again after', async () => {
    const pose = { xMm: 200, yMm: -5600, turnedDeg: 0 };
    const { fixture, tap, root } = await show();
    spyOn(fixture.debugElement.injector.get(PlanRunner), 'begin').and.returnValue({
      isCurrent: () => true,
      ask: () => Promise.resolve(pose as never),
    });
    const before = figures(root);
    await tap('Best place');
    await fixture.whenStable();
    expect(figures(root)).not.toBe(before);
    expect(root.querySelector<HTMLButtonElement>('.key.strong')!.disabled).toBeFalse();
  });
});
