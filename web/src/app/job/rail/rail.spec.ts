import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { STAGES } from '@voltrek/core/job';
import { opened, workOf } from '../../../testing/fixtures';
import { Rail } from './rail';
import { stageResults } from './stage-results';

describe('Rail', () => {
  async function show(change: object = {}) {
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection()] });
    const fixture = TestBed.createComponent(Rail);
    const results = { ...stageResults(workOf([opened()]), null), ...change };
    fixture.componentRef.setInput('current', 'measure');
    fixture.componentRef.setInput('results', results);
    const chosen: string[] = [];
    fixture.componentInstance.chosen.subscribe((stage) => chosen.push(stage));
    await fixture.whenStable();
    return { root: fixture.nativeElement as HTMLElement, chosen };
  }

  it('shows every stage in its order, and which one is on the screen', async () => {
    const { root } = await show();
    expect(root.querySelectorAll('li').length).toBe(STAGES.length);
    const current = root.querySelectorAll('[aria-current=step]');
    expect(current.length).toBe(1);
    expect(current[0]!.textContent).toContain('Measure');
  });

  it('tells by words and by a mark what is done and what is stopped', async () => {
    const { root } = await show({
      scene: { done: true, stopped: false, line: '-4 °C' },
      checks: { done: true, stopped: true, line: 'gas' },
    });
    const [scene, checks] = root.querySelectorAll('li');
    expect(scene!.querySelector('.bi-check-lg')).not.toBeNull();
    expect(scene!.textContent).toContain('done');
    expect(checks!.querySelector('.stop')!.textContent.trim()).toBe('!');
  });

  it('opens a stage at a tap', async () => {
    const { root, chosen } = await show();
    root.querySelectorAll('button')[4]!.click();
    expect(chosen).toEqual(['plan']);
  });
});
