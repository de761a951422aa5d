import { provideZonelessChangeDetection, signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { ARMS_AFTER_MS } from '../../arming';
import { LiveLine } from './live-line';
import { type ReceivedReading, LiveStore } from './live-store';

const METER: ReceivedReading = {
  instrument: 'meter',
  state: 'ready',
  name: 'Test meter',
  value: null,
  overload: false,
  at: '',
  receivedMs: 0,
};

describe('LiveLine', () => {
  async function show(value: number) {
    const byInstrument = signal<{ meter: ReceivedReading }>({
      meter: { ...METER, value },
    });
    const connected = signal(true);
    const counts = signal(true);
    const ageMs = signal(200);
    const live = {
      connected,
      held: signal<{ meter?: ReceivedReading }>({}),
      hold: () => undefined,
      nowOf: () => byInstrument().meter,
      ageMs,
      isOfHere: () => connected() && counts(),
      isFresh: () => connected() && counts() && ageMs() < 2000,
    };
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        { provide: LiveStore, useValue: live },
        { provide: ARMS_AFTER_MS, useValue: 0 },
      ],
    });
    const fixture = TestBed.createComponent(LiveLine);
    const taken: number[] = [];
    fixture.componentInstance.taken.subscribe((v) => taken.push(v));
    for (const [name, input] of Object.entries({
      instrument: 'meter',
      unit: 'V',
      of: 'Rest volts, battery 1',
      faultOf: () => null,
    }))
      fixture.componentRef.setInput(name, input);
    await fixture.whenStable();
    const root = fixture.nativeElement as HTMLElement;
    const button = (name: string) =>
      [...root.querySelectorAll('button')].find((b) => b.textContent.trim() === name);
    const tap = async (name: string): Promise<void> => {
      button(name)!.click();
      await fixture.whenStable();
    };
    const read = async (of: string, next: number): Promise<void> => {
      fixture.componentRef.setInput('of', of);
      byInstrument.set({ meter: { ...byInstrument().meter, value: next } });
      await fixture.whenStable();
    };
    return {
      fixture,
      root,
      button,
      tap,
      read,
      taken,
      connected,
      counts,
      ageMs,
      held: live.held,
      byInstrument,
    };
  }

  it('takes no value twice for two batteries until it has moved, or the technician says the probes have', async () => {
    const { root, button, tap, read, taken } = await show(12.413);
    await tap('Take it');
    await read('Rest volts, battery 2', 12.415);
    expect(button('Take it')).toBeUndefined();
    expect(root.textContent).toContain('move the probes');
    await read('Rest volts, battery 2', 11.87);
    await tap('Take it');
    expect(taken).toEqual([12.413, 11.87]);
    await read('Key on', 11.87);
    await tap('Probes are there');
    await tap('Take it');
    expect(taken).toEqual([12.413, 11.87, 11.87]);
  });

  it('takes the same reading again as often as it is asked to', async () => {
    const { tap, taken } = await show(12.413);
    await tap('Take it');
    await tap('Take it');
    expect(taken).toEqual([12.413, 12.413]);
  });

  it('greys a value when the line breaks, says so, and takes it no more', async () => {
    const { fixture, root, button, connected } = await show(12.413);
    connected.set(false);
    await fixture.whenStable();
    expect(root.querySelector('.live')!.classList).toContain('gone');
    expect(root.textContent).toContain('line broken');
    expect(button('Take it')!.disabled).toBeTrue();
  });

  it('tells the age of a value; one that grew old is greyed and taken no more until a fresh one came', async () => {
    const { fixture, root, button, ageMs } = await show(12.413);
    expect(root.textContent).toContain('0.2 s old');
    ageMs.set(4_000);
    await fixture.whenStable();
    expect(root.textContent).toContain('4.0 s old');
    expect(root.textContent).toContain('an old value');
    expect(root.querySelector('.live')!.classList).toContain('gone');
    expect(button('Take it')!.disabled).toBeTrue();
    expect(button('Hold')!.disabled).toBeTrue();
    ageMs.set(100);
    await fixture.whenStable();
    expect(button('Take it')!.disabled).toBeFalse();
  });

  it('takes nothing while the probes move, and says why', async () => {
    const { fixture, root, button, counts, byInstrument } = await show(12.413);
    counts.set(false);
    await fixture.whenStable();
    expect(root.textContent).toContain('probes move');
    expect(button('Take it')!.disabled).toBeTrue();
    // One that is lost has no fresh value to come.
    byInstrument.update(({ meter }) => ({ meter: { ...meter, value: null, state: 'lost' } }));
    await fixture.whenStable();
    expect(root.textContent).toContain('lost');
    expect(root.textContent).not.toContain('probes move');
  });

  it('takes what is held still, however old it grew, but not over a broken line', async () => {
    const { fixture, root, button, tap, taken, held, ageMs, connected } = await show(12.413);
    held.set({ meter: { ...METER, value: 11.2 } });
    ageMs.set(60_000);
    await fixture.whenStable();
    expect(root.textContent).toContain('held');
    expect(root.textContent).toContain('60.0 s old');
    await tap('Take it');
    expect(taken).toEqual([11.2]);
    connected.set(false);
    await fixture.whenStable();
    expect(button('Take it')!.disabled).toBeTrue();
  });
});
