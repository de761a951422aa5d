import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import type { PlanChanges, PlanInput } from '@voltrek/core/plan';
import { PlanInputs } from './plan-inputs';

const INPUTS: readonly PlanInput[] = [
  { key: 'soc', value: 0.08, origin: 'typed' },
  { key: 'ageing', value: 1.3, origin: 'assumed' },
  { key: 'leadLengthM', value: 3.5, origin: 'kit' },
];

describe('PlanInputs', () => {
  async function show(changes: PlanChanges = {}) {
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection()] });
    const fixture = TestBed.createComponent(PlanInputs);
    fixture.componentRef.setInput('inputs', INPUTS);
    fixture.componentRef.setInput('changes', changes);
    const told: PlanChanges[] = [];
    fixture.componentInstance.changed.subscribe((c) => told.push(c));
    await fixture.whenStable();
    const root = fixture.nativeElement as HTMLElement;
    const type = async (row: number, text: string): Promise<void> => {
      const field = root.querySelectorAll('input')[row]!;
      field.value = text;
      field.dispatchEvent(new Event('change'));
      await fixture.whenStable();
    };
    return { root, told, type, fixture };
  }

  it('says where each figure came from, and shows an assumed one as assumed', async () => {
    const { root } = await show();
    const rows = [...root.querySelectorAll('li')];
    expect(rows.map((r) => r.querySelector('.origin')!.textContent.trim())).toEqual([
      'typed',
      'assumed',
      'kit list',
    ]);
    expect(rows.map((r) => r.classList.contains('assumed'))).toEqual([false, true, false]);
    expect(root.querySelectorAll('input')[0]!.value).toBe('8');
  });

  it('takes a figure in its shown unit, comma or point', async () => {
    const { told, type } = await show();
    await type(0, '35');
    await type(2, '4,5');
    expect(told).toEqual([{ soc: 0.35 }, { leadLengthM: 4.5 }]);
  });

  it('refuses what cannot be, with the range, and keeps what was typed', async () => {
    const { root, told, type } = await show();
    await type(2, '-1');
    expect(told).toEqual([]);
    expect(root.querySelector('[role=alert]')!.textContent).toContain('between 0.1 and 30 m');
    expect(root.querySelectorAll('input')[2]!.value).toBe('-1');
    await type(2, 'abc');
    expect(root.querySelector('[role=alert]')!.textContent).toContain('must be a number');
  });

  it('goes back to its own value', async () => {
    const { root, told } = await show({ soc: 0.4, ageing: 2 });
    root.querySelector<HTMLButtonElement>('.back')!.click();
    expect(told).toEqual([{ ageing: 2 }]);
  });

  it('opens the note of a figure: why, and what is plausible', async () => {
    const { root, fixture } = await show();
    root.querySelectorAll<HTMLButtonElement>('.name')[1]!.click();
    await fixture.whenStable();
    expect(root.querySelector('.note')!.textContent).toContain('1 to 3 times new');
  });
});
