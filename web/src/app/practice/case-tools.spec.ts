import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import type { InstrumentNow } from '@voltrek/contracts';
import { act, optionsOf, type PracticeAction, startCase, type World } from '@voltrek/core/practice';
import { spoken } from '@words/practice-words';
import { CaseTools } from './case-tools';

describe('CaseTools', () => {
  async function shown(world: World, locked = false) {
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection()] });
    const fixture = TestBed.createComponent(CaseTools);
    fixture.componentRef.setInput('world', spoken(world));
    fixture.componentRef.setInput('locked', locked);
    const did: PracticeAction[] = [];
    fixture.componentInstance.does.subscribe((action) => did.push(action));
    await fixture.whenStable();
    const root = fixture.nativeElement as HTMLElement;
    const button = (name: RegExp): HTMLButtonElement =>
      [...root.querySelectorAll('button')].find((b) => name.test(b.textContent.trim()))!;
    const tap = async (name: RegExp): Promise<void> => {
      button(name).click();
      await fixture.whenStable();
    };
    const touch = async (pointId: string): Promise<void> => {
      fixture.componentInstance.touch(pointId);
      await fixture.whenStable();
    };
    const ends = () => fixture.componentInstance.sourcePoints();
    return { did, button, tap, touch, ends, fixture, root, settled: () => fixture.whenStable() };
  }
  const withDonor = (code: string): World => {
    const start = startCase(code);
    const donor = optionsOf(start).find((o) => o.sourceKind === 'donor')!;
    return act(start, { kind: 'fetch', optionId: donor.id });
  };

  it('puts any clamp on any point of its own vehicle, and forbids nothing', async () => {
    const { did, tap } = await shown(withDonor('order-2'));
    await tap(/^clamps$/);
    await tap(/^Red, casualty end/);
    await tap(/^Battery -$/);
    await tap(/^Lay it on bare metal$/);
    expect(did).toEqual([
      {
        kind: 'hands',
        action: { kind: 'attach', clamp: 'redCasualty', pointId: jasmine.any(String) as never },
      },
      { kind: 'hands', action: { kind: 'lay', clamp: 'redCasualty' } },
    ]);
  });

  it('reads when both probes have a place', async () => {
    const { did, tap, button, root, settled } = await shown(startCase('order-2'));
    await tap(/^probes$/);
    expect(button(/^Read$/).disabled).toBeTrue();
    const groups = [...root.querySelectorAll<HTMLElement>('[role=radiogroup]')].slice(1);
    for (const [i, group] of groups.entries()) group.querySelectorAll('button')[i]!.click();
    await settled();
    await tap(/^Read$/);
    expect(did.length).toBe(1);
    expect(did[0]).toEqual(jasmine.objectContaining({ kind: 'probe' }));
  });

  it('takes what is in hand to a point that is touched on the drawing', async () => {
    const { did, tap, touch, ends } = await shown(withDonor('order-2'));
    await touch('battery-plus');
    expect(did).toEqual([]);
    await tap(/^clamps$/);
    await tap(/^Red, casualty end/);
    await touch('battery-plus');
    expect(did).toEqual([
      { kind: 'hands', action: { kind: 'attach', clamp: 'redCasualty', pointId: 'battery-plus' } },
    ]);
    expect(ends()).toBeNull();
    // The other end of the lead is on another vehicle, whose points are drawn then.
    await tap(/^Red, source end/);
    const { donor } = withDonor('order-2').practice;
    expect(ends()).toEqual(donor.points.map(({ id }) => id));
    await touch(donor.points[0]!.id);
    expect(did[1]).toEqual({
      kind: 'hands',
      action: { kind: 'attach', clamp: 'redSource', pointId: donor.points[0]!.id },
    });
    await tap(/^probes$/);
    expect(ends()).toBeNull();
    await touch('battery-plus');
    await touch('battery-minus');
    await tap(/^Read$/);
    expect(did[2]).toEqual({ kind: 'probe', red: 'battery-plus', black: 'battery-minus' });
  });

  it('puts a pack’s own end nowhere but where it is, whatever is touched', async () => {
    const start = startCase('order-2');
    const pack = optionsOf(start).find((o) => o.sourceKind === 'lithium-pack')!;
    const { did, tap, touch, ends } = await shown(act(start, { kind: 'fetch', optionId: pack.id }));
    await tap(/^clamps$/);
    expect(ends()).toBeNull();
    await touch('battery-plus');
    expect(did).toEqual([
      { kind: 'hands', action: { kind: 'attach', clamp: 'redCasualty', pointId: 'battery-plus' } },
    ]);
  });

  it('asks each battery of a string by itself', async () => {
    const { root } = await shown(startCase('string-1'));
    const names = [...root.querySelectorAll('button')].map((b) => b.textContent.trim());
    expect(names.some((name) => name.endsWith('battery 1'))).toBeTrue();
    expect(names.some((name) => name.endsWith('battery 2'))).toBeTrue();
  });

  it('offers what a bench has linked where it reads, and the case’s own beside it', async () => {
    const { tap, fixture, root } = await shown(startCase('order-2'));
    await tap(/^probes$/);
    expect(root.textContent).not.toContain('Read with');
    const meter = { instrument: 'meter', state: 'ready', name: 'A meter' } as InstrumentNow;
    fixture.componentRef.setInput('bench', [meter]);
    const chosen: boolean[] = [];
    fixture.componentInstance.readsBench.subscribe((isChosen) => chosen.push(isChosen));
    await fixture.whenStable();
    await tap(/^linked: A meter$/);
    await tap(/^the case's own$/);
    expect(chosen).toEqual([true, false]);
    // The clamp is not linked.
    await tap(/^clamp meter$/);
    expect(root.textContent).not.toContain('Read with');
  });

  it('stands still while a consequence is looked at', async () => {
    const { did, tap } = await shown(startCase('order-2'), true);
    await tap(/^key$/);
    await tap(/^Turn the key$/);
    expect(did).toEqual([]);
  });
});
