import { provideZonelessChangeDetection, signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import type { InstrumentNow } from '@voltrek/contracts';
import { LiveLine } from './live-line';
import { LiveStore } from './live-store';

describe('LiveLine', () => {
  async function show(value: number) {
    const byInstrument = signal<{ meter: InstrumentNow }>({
      meter: { instrument: 'meter', state: 'ready', name: 'Test meter', value, overload: false, at: '' },
    });
    const connected = signal(true);
    const live = { byInstrument, connected, held: signal({}), hold: () => undefined };
    TestBed.configureTestingModule({
      providers: [provideZonelessChangeDetection(), { provide: LiveStore, useValue: live }],
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
    return { fixture, root, button, tap, read, taken, connected };
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
});
