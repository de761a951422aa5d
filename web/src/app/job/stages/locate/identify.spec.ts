import type { MachineSearch } from '@voltrek/contracts';
import { of } from 'rxjs';
import { TestBed } from '@angular/core/testing';
import { opened } from '../../../../testing/fixtures';
import { jobHarness } from '../../../../testing/job-harness';
import { Finder } from '../../../shared/data/finder';
import { Errands } from '../../../shared/sync/errands';
import { SendPhoto } from '../../../shared/sync/send-photo';
import { Identify } from './identify';

describe('Identify', () => {
  async function show() {
    const harness = await jobHarness(Identify, [opened()]);
    const offered: object[] = [];
    spyOn(TestBed.inject(Errands), 'offer').and.callFake((errand) => {
      offered.push(errand);
      return Promise.resolve(null as never);
    });
    const typeIn = async (selector: string, text: string): Promise<void> => {
      const field = harness.root.querySelector<HTMLInputElement>(selector)!;
      field.value = text;
      field.dispatchEvent(new Event('input'));
      await harness.fixture.whenStable();
    };
    return { ...harness, offered, typeIn };
  }
  const next = (root: HTMLElement): HTMLButtonElement => root.querySelector('vt-next-action button')!;
  const rows = (root: HTMLElement): string[] =>
    [...root.querySelectorAll('fieldset .row strong')].map((row) => row.textContent.trim());

  it('offers machines of the atlas, without the one that the job has', async () => {
    const { root, typeIn, reported, tap } = await show();
    const found = ['car', 'other'].map((id) => ({
      ...{ id, maker: 'Test', model: `Model ${id}`, machineClass: 'car', places: 'front bay' },
    }));
    spyOn(TestBed.inject(Finder), 'machines').and.returnValue(
      of({ machines: found, total: 2 } as unknown as MachineSearch),
    );
    await typeIn('input[type=search]', 'model');
    await new Promise((done) => setTimeout(done, 120));
    await typeIn('input[type=search]', 'model');
    const offered = [...root.querySelectorAll('label + ul .row strong')].map((row) => row.textContent);
    expect(offered).toEqual(['Test Model other']);
    await tap(/Test Model other/);
    expect(reported().map(({ type, data }) => [type, data])).toEqual([
      ['model.identified', { modelId: 'other' }],
    ]);
  });

  it('ranks the places of a class by what is seen', async () => {
    const { root, tap } = await show();
    await tap('truck');
    const before = rows(root);
    expect(before.length).toBeGreaterThan(1);
    const clue = root.querySelectorAll('fieldset')[1]!.querySelector('button')!;
    clue.click();
    await new Promise((done) => setTimeout(done));
    expect(clue.getAttribute('aria-pressed')).toBe('true');
    expect(rows(root).length).toBe(before.length);
  });

  it('forgets what was seen when the class changes', async () => {
    const { root, tap } = await show();
    root.querySelectorAll('fieldset')[1]!.querySelector('button')!.click();
    await tap('motorcycle');
    expect(root.querySelectorAll('fieldset')[1]!.querySelector('[aria-pressed=true]')).toBeNull();
  });

  it('asks for place, then maker and model, before it keeps a machine and goes on with it', async () => {
    const { root, fixture, typeIn, offered, reported } = await show();
    expect(next(root).textContent).toContain('Tap where the battery is');
    root.querySelector<HTMLButtonElement>('fieldset .ruled .row')!.click();
    await fixture.whenStable();
    expect(next(root).textContent).toContain('Say maker and model');
    const [maker, model] = root.querySelectorAll<HTMLInputElement>('.fields input');
    for (const [field, text] of [
      [maker!, 'Wexford'],
      [model!, 'Lark'],
    ] as const) {
      field.value = text;
      field.dispatchEvent(new Event('input'));
    }
    await fixture.whenStable();
    expect(next(root).textContent).toContain('Keep it and go on');
    await typeIn('.fields input[inputmode=decimal]', '0');
    expect(next(root).disabled).toBeTrue();
    await typeIn('.fields input[inputmode=decimal]', '60');
    spyOn(TestBed.inject(SendPhoto), 'send');
    next(root).click();
    await new Promise((done) => setTimeout(done, 20));
    expect(offered.length).toBe(1);
    expect((offered[0] as { machine: { maker: string } }).machine.maker).toBe('Wexford');
    expect(reported().map(({ type }) => type)).toEqual(['model.identified']);
    expect(TestBed.inject(SendPhoto).send).not.toHaveBeenCalled();
  });
});
