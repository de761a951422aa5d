import { HttpErrorResponse } from '@angular/common/http';
import type {
  AddressChange,
  CrewMember,
  Instrument,
  InstrumentAddress,
  InstrumentAddresses,
  InstrumentNow,
} from '@voltrek/contracts';
import type { Store } from '@ngrx/store';
import { type Observable, of, throwError } from 'rxjs';
import { partAlone } from '../../testing/part-alone';
import type { Api } from '../shared/data/api';
import { SessionActions } from '../shared/data/session';
import { InstrumentsPart } from './instruments-part';

const CREW: readonly CrewMember[] = [
  { id: 'crew-1', name: 'Ana', role: 'crew-lead', retired: false },
  { id: 'crew-2', name: 'Bo', role: 'technician', retired: false },
];
const now = (instrument: Instrument, state: InstrumentNow['state'], name: string | null): InstrumentNow => ({
  ...{ instrument, state, name, value: null, overload: false, at: '2027-01-15T02:00:00.000Z' },
});
const page = (meter: Partial<InstrumentAddress>): InstrumentAddresses => ({
  networks: ['10.0.0.0/8', 'fc00::/7'],
  addresses: [
    { instrument: 'meter', address: null, setBy: null, ...meter },
    { instrument: 'clamp', address: '10.0.0.8:5025', setBy: 'server' },
    { instrument: 'tester', address: '127.0.0.1:40001', setBy: 'stand-in' },
  ],
});

describe('the linked instruments as they are looked after', () => {
  let root: HTMLElement;
  let linked: [Instrument, AddressChange][];
  let asked: number;
  let answer: () => Observable<InstrumentAddresses>;
  let settle: () => Promise<void>;

  async function show(who: string, first: InstrumentAddresses): Promise<Store> {
    [linked, asked, answer] = [[], 0, () => of(first)];
    const api: Partial<Api> = {
      instruments: () =>
        of([now('meter', 'lost', null), now('clamp', 'ready', 'Jaw 300'), now('tester', 'off', null)]),
      instrumentAddresses: () => {
        asked++;
        return answer();
      },
      linkInstrument: (instrument, change) => {
        linked.push([instrument, change]);
        return answer();
      },
    };
    const alone = partAlone(InstrumentsPart, api, { crew: CREW, who });
    const { fixture, store } = alone;
    root = alone.root;
    settle = async () => {
      // The first look is a turn of the clock away.
      await new Promise((done) => setTimeout(done));
      await fixture.whenStable();
    };
    await settle();
    return store;
  }
  const rows = (): HTMLElement[] => [...root.querySelectorAll('li')];
  const keys = (text: string): HTMLButtonElement[] =>
    [...root.querySelectorAll('button')].filter((key) => key.textContent.trim() === text);

  it('show how each line stands, and to a crew lead who set its address', async () => {
    await show('crew-1', page({ address: '10.0.0.7:5025', setBy: 'crew-lead' }));
    const [meter, clamp, tester] = rows().map((row) => row.textContent);
    expect(meter).toContain('lost, trying again');
    expect(meter).toContain('Set here.');
    expect(clamp).toContain('Jaw 300');
    expect(clamp).toContain('10.0.0.8:5025');
    expect(tester).toContain('not linked');
    expect(tester).toContain('stand-in');
    expect(root.textContent).toContain('10.0.0.0/8, fc00::/7');
    // An address in the server's settings cannot be changed here; a stand-in's address is nobody's to keep.
    const fields = rows().map((row) => row.querySelector('input')?.value);
    expect(fields).toEqual(['10.0.0.7:5025', undefined, '']);
  });

  it('are linked and unlinked by a crew lead, and what the server refuses is told', async () => {
    await show('crew-1', page({}));
    const field = rows()[0]!.querySelector('input')!;
    field.value = ' 10.0.0.7:5025 ';
    answer = () => of(page({ address: '10.0.0.7:5025', setBy: 'crew-lead' }));
    keys('Link')[0]!.click();
    await settle();
    keys('Unlink')[0]!.click();
    await settle();
    expect(linked).toEqual([
      ['meter', { address: '10.0.0.7:5025', by: 'crew-1' }],
      ['meter', { address: null, by: 'crew-1' }],
    ]);
    const problem = { status: 422, title: 'Refused', detail: 'Only in these networks.' };
    answer = () => throwError(() => new HttpErrorResponse({ status: 422, error: problem }));
    keys('Link')[0]!.click();
    await settle();
    expect(root.querySelector('[role="alert"]')!.textContent).toContain('Only in these networks');
    expect(keys('Link')[0]!.disabled).toBeFalse();
    // The earlier address stands.
    expect(rows()[0]!.querySelector('input')!.value).toBe('10.0.0.7:5025');
  });

  it('have no addresses for anybody else, also where a lead hands the device over', async () => {
    const store = await show('crew-2', page({}));
    expect(asked).toBe(0);
    expect(root.querySelectorAll('input, button').length).toBe(0);
    expect(root.textContent).toContain('A crew lead links instruments.');
    expect(rows()[1]!.textContent).toContain('live');
    store.dispatch(SessionActions.crewChosen({ crewId: 'crew-1' }));
    await settle();
    expect(asked).toBe(1);
    expect(root.querySelectorAll('input').length).toBe(2);
    store.dispatch(SessionActions.crewChosen({ crewId: 'crew-2' }));
    await settle();
    expect(root.querySelectorAll('input').length).toBe(0);
  });
});
