import { HttpTestingController } from '@angular/common/http/testing';
import { TestBed } from '@angular/core/testing';
import type { Battery } from '@voltrek/contracts';
import type { BatteryRating } from '@voltrek/core/battery';
import { CAR, detailOf, event, opened } from '../../../../testing/fixtures';
import { jobHarness } from '../../../../testing/job-harness';
import { LabelReader } from '../../../shared/ui/label-dialog';
import { ChangeBattery } from './change-battery';

describe('ChangeBattery', () => {
  it('goes step by step, tells what a slip would carry, and records each step', async () => {
    const { root, tap, reported } = await jobHarness(ChangeBattery, [opened()]);
    expect(root.textContent).toContain('flooded, EFB or AGM');
    expect(root.querySelector('.act')!.textContent).toContain('memory keeper');
    for (let i = 0; i < 3; i++) await tap('Done');
    expect(root.querySelector('.act')!.textContent).toContain('Take the positive clamp off');
    // The keeper that the first step joined keeps the plus live: 12.6 V behind a quarter of an ohm.
    expect(root.querySelector('.step')!.textContent).toMatch(
      /bodywork now: 50 A: the other feed keeps the plus live/,
    );
    expect(reported().map((e) => (e.type === 'fitting.confirmed' ? e.data.step : e.type))).toEqual([
      'memory-keeper-on',
      'all-off',
      'negative-off',
    ]);
  });

  it('with nothing else that feeds it tells what the order spares, and counts what is noted', async () => {
    const { root, tap, reported } = await jobHarness(ChangeBattery, [opened()], {
      machine: { ...CAR, resets: [] },
    });
    for (let i = 0; i < 2; i++) await tap('Done');
    const slip = (): string => root.querySelector('.step')!.textContent;
    expect(slip()).toMatch(/bodywork now: 0 A; the other way round: \d{3,} A\./);
    await tap('memory keeper on');
    expect(slip()).toMatch(/bodywork now: 50 A: the other feed keeps the plus live/);
    expect(reported().at(-1)!.type).toBe('circumstance.noted');
  });

  it('takes only a battery that fits, and then says its record begins', async () => {
    const steps = ['all-off'] as const;
    const log = [opened(), ...steps.map((step) => event('fitting.confirmed', { battery: 0, step }))];
    const { root, tap, type, button, reported, refresh } = await jobHarness(ChangeBattery, log, {
      machine: { ...CAR, resets: [] },
    });
    while (root.querySelector('.step')) await tap('Done');
    expect(button('It is fitted').disabled).toBeTrue();
    await type('Capacity, Ah', '60');
    await type('Cold-cranking amps, A', '5000');
    expect(root.querySelector('[role=alert]')!.textContent).toContain('between 20 and 2500 A');
    await type('Cold-cranking amps, A', '400');
    expect(root.querySelector('[role=alert]')!.textContent).toContain('fewer cold-cranking amps');
    await type('Cold-cranking amps, A', '560');
    await tap('It is fitted');
    expect(reported().at(-1)!.data).toEqual({
      battery: 0,
      rating: { chemistry: 'flooded', capacityAh: 60, ccaAmps: 560, ccaStandard: 'EN' },
    });
    await refresh();
    expect(root.textContent).toContain('Its record begins today.');
  });

  it('begins with the kind that went out, and keeps what is typed while the job goes on', async () => {
    const battery = CAR.batteries[0]!;
    const agm = { ...battery.rating, chemistry: 'agm' } as const;
    const machine = { ...CAR, resets: [], batteries: [{ ...battery, rating: agm }] };
    const { root, tap, type, button, fixture } = await jobHarness(ChangeBattery, [opened()], { machine });
    while (root.querySelector('.step')) await tap('Done');
    expect(root.textContent).toContain('Type what is printed on the new battery.');
    expect(root.querySelector('select')!.value).toBe('agm');
    await type('Capacity, Ah', '60');
    // A tap folds the job anew: its machine is another object that says the same.
    const work = fixture.componentInstance.work();
    fixture.componentRef.setInput('work', { ...work, machine: structuredClone(work.machine) });
    await fixture.whenStable();
    await type('Cold-cranking amps, A', '560');
    expect(button('It is fitted').disabled).toBeFalse();
  });

  /** A change with everything off, and batteries on two vans and at the depot. */
  async function withSpares() {
    const machine = { ...CAR, resets: [] };
    const call = { ...detailOf([opened()]).call, vanId: 'van-2' };
    const { root, tap, reported, refresh } = await jobHarness(ChangeBattery, [opened()], { machine, call });
    const fits = machine.batteries[0]!.rating;
    const loose = (id: string, vanId: string | null, rating: BatteryRating): Battery => ({
      id,
      code: id.toUpperCase(),
      rating,
      dateMark: null,
      state: vanId ? 'on-van' : 'depot',
      vehicleId: null,
      place: null,
      vanId,
      since: '2026-01-01T00:00:00Z',
    });
    TestBed.inject(HttpTestingController)
      .expectOne('/api/batteries')
      .flush([
        loose('fits', 'van-2', fits),
        loose('weak', 'van-2', { ...fits, ccaAmps: fits.ccaAmps / 2 }),
        loose('other', 'van-1', fits),
        loose('depot', null, fits),
      ]);
    await refresh();
    while (root.querySelector('.step')) await tap('Done');
    const names = (): string[] =>
      [...root.querySelectorAll('[aria-label="The battery that went in"] button')].map(
        (b) => b.textContent.trim().split(' ')[0]!,
      );
    return { root, tap, reported, refresh, fits, names };
  }

  it('offers what lies on the van and fits, and records which one went in', async () => {
    const { root, tap, reported, refresh, fits, names } = await withSpares();
    expect(names()).toEqual(['FITS', 'a']);
    await tap(/^FITS/);
    await tap('It is fitted');
    expect(reported().at(-1)!.data).toEqual({ battery: 0, rating: fits, batteryId: 'fits' });
    await refresh();
    expect(root.textContent).toContain('Its record goes on here.');
  });

  it('offers the battery whose label is read, wherever the record has it, if it fits', async () => {
    const { root, tap, reported, refresh, fits, names } = await withSpares();
    const labels = spyOn(TestBed.inject(LabelReader), 'read');
    const read = async (named: string): Promise<string | undefined> => {
      labels.and.resolveTo(named);
      await tap('Read a label');
      return root.querySelector('[role=alert]')?.textContent.trim();
    };
    expect(await read('WEAK')).toContain('fewer cold-cranking amps');
    expect(await read('elsewhere')).toContain('That battery is no spare');
    expect(await read('depot')).toBeUndefined();
    expect(names()).toEqual(['FITS', 'DEPOT', 'a']);
    await tap('It is fitted');
    expect(reported().at(-1)!.data).toEqual({ battery: 0, rating: fits, batteryId: 'depot' });
    await refresh();
    expect(root.textContent).toContain('Its record goes on here.');
  });

  it('offers either battery of a string, and warns to change both', async () => {
    const battery = CAR.batteries[0]!;
    const machine = {
      ...CAR,
      systemVolts: 24 as const,
      batteries: [battery, { ...battery, place: 'box, rear' }],
    };
    const { root, tap } = await jobHarness(ChangeBattery, [opened()], { machine });
    expect(root.textContent).toContain('Change both of a string');
    await tap('battery 2');
    expect(root.querySelector('h3')!.textContent).toContain('box, rear');
  });
});
