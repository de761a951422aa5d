import { HttpErrorResponse } from '@angular/common/http';
import type { CrewMember, SignInRuleChange, PinChange, SignInHouse } from '@voltrek/contracts';
import { type Observable, of, throwError } from 'rxjs';
import { partAlone } from '../../testing/part-alone';
import type { Api } from '../shared/data/api';
import { SignInPart } from './sign-in-part';

const CREW: readonly CrewMember[] = [
  { id: 'crew-1', name: 'Ana', role: 'crew-lead', retired: false },
  { id: 'crew-2', name: 'Bo', role: 'technician', retired: false },
];
const AT = '2027-01-15T02:00:00.000Z';
const house = (more: Partial<SignInHouse> = {}): SignInHouse => ({
  required: false,
  crew: CREW.map(({ id }) => ({ crewId: id, hasPin: false, lockedUntil: null })),
  ...{ passkeys: [], sessions: [], audit: [] },
  ...more,
});
const withPins = (...ids: readonly string[]): Pick<SignInHouse, 'crew'> => ({
  crew: CREW.map(({ id }) => ({ crewId: id, hasPin: ids.includes(id), lockedUntil: null })),
});

describe('the door as it is looked after', () => {
  let now: SignInHouse;
  let pins: [string, PinChange][];
  let doors: SignInRuleChange[];
  let ended: string[];
  let answer: () => Observable<SignInHouse>;
  let root: HTMLElement;
  let settle: () => Promise<void>;

  async function show(first: SignInHouse, who = 'crew-1'): Promise<void> {
    [now, pins, doors, ended] = [first, [], [], []];
    answer = () => of(now);
    const api: Partial<Api> = {
      signInHouse: () => answer(),
      setPin: (crewId, change) => {
        pins.push([crewId, change]);
        return answer();
      },
      setSignInRule: (change) => {
        doors.push(change);
        return answer();
      },
      endSession: (id) => {
        ended.push(id);
        return answer();
      },
    };
    const alone = partAlone(SignInPart, api, { crew: CREW, who });
    const { fixture } = alone;
    root = alone.root;
    settle = async () => {
      await fixture.whenStable();
    };
    await settle();
  }
  const keys = (text: string): HTMLButtonElement[] =>
    [...root.querySelectorAll('button')].filter((key) => key.textContent.trim() === text);
  async function tap(text: string, at = 0): Promise<void> {
    keys(text)[at]!.click();
    await settle();
  }
  async function type(label: string, text: string): Promise<void> {
    const found = [...root.querySelectorAll('label')].find((l) => l.textContent.includes(label))!;
    const field = found.querySelector('input')!;
    field.value = text;
    field.dispatchEvent(new Event('input'));
    await settle();
  }

  it('is shut only by a lead who has a PIN, with that PIN', async () => {
    await show(house());
    expect(root.textContent).toContain('Give yourself a PIN first');
    expect(keys('Require sign-in')).toEqual([]);
    await tap('Set PIN');
    await type('New PIN of Ana', '123456');
    expect(root.textContent).toContain('too easily guessed');
    expect(keys('Save')[0]!.disabled).toBeTrue();
    await type('New PIN of Ana', '480263');
    now = house(withPins('crew-1'));
    await tap('Save');
    expect(pins).toEqual([['crew-1', { by: 'crew-1', pin: '480263' }]]);
    await type('Your PIN, as a crew lead', '480263');
    now = house({ required: true, ...withPins('crew-1') });
    await tap('Require sign-in');
    expect(doors).toEqual([{ by: 'crew-1', required: true, pin: '480263' }]);
    expect(root.textContent).toContain('Required: sign in to get in');
  });

  it('lets others set their own PIN alone, and shows them nothing to shut', async () => {
    await show(house(withPins('crew-2')), 'crew-2');
    expect(keys('Set PIN').length).toBe(1);
    expect(keys('Require sign-in')).toEqual([]);
    await tap('Set PIN');
    await type('New PIN of Bo', '917354');
    await type('Your own PIN as it stands', '605281');
    await tap('Save');
    expect(pins).toEqual([['crew-2', { by: 'crew-2', pin: '917354', ownPin: '605281' }]]);
  });

  it('tells who is in where and what was done, ends a session, and says why something was not done', async () => {
    const session = { id: 's-1', crewId: 'crew-2', device: 'Van tablet', createdAt: AT, seenAt: AT };
    await show(
      house({
        ...{ required: true, ...withPins('crew-1', 'crew-2') },
        sessions: [{ ...session, handedOverAt: null, isThisDevice: false }],
        audit: [
          { position: 2, at: AT, by: 'crew-1', kind: 'pin-set', about: 'crew-2' },
          { position: 1, at: AT, by: null, kind: 'pin-wrong', about: 'crew-2' },
        ],
      }),
    );
    expect(root.textContent).toContain('Van tablet');
    expect(root.querySelector('details')!.textContent).toMatch(/Ana.*PIN set: Bo.*nobody.*wrong PIN: Bo/s);
    await tap('End');
    expect(ended).toEqual(['s-1']);
    const problem = { status: 409, detail: 'sign-in stays required.' };
    answer = () => throwError(() => new HttpErrorResponse({ status: 409, error: problem }));
    await type('Your PIN, as a crew lead', '480263');
    await tap('Open to everybody');
    expect(root.querySelector('[role=alert]')!.textContent).toContain('stays required');
    expect(root.textContent).toContain('Van tablet');
  });
});
