import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { provideRouter, Router } from '@angular/router';
import { codeOfMade, codeOfWritten, PRACTICE_KIT, readWrittenCode } from '@voltrek/core/practice';
import { BLANK_CASE } from './case-fields';
import { WritePage } from './write-page';

const KEY = 'voltrek.practice.written';

describe('WritePage', () => {
  beforeEach(() => localStorage.removeItem(KEY));
  afterEach(() => localStorage.removeItem(KEY));

  async function shown(from?: string) {
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection(), provideRouter([])] });
    const fixture = TestBed.createComponent(WritePage);
    if (from) fixture.componentRef.setInput('from', from);
    await fixture.whenStable();
    const root = fixture.nativeElement as HTMLElement;
    const field = (label: string) =>
      [...root.querySelectorAll('label')].find((l) => l.textContent.trim().startsWith(label))!.htmlFor;
    const at = (label: string) =>
      root.querySelector<HTMLInputElement | HTMLSelectElement>(`[id="${field(label)}"]`)!;
    const key = (name: string) =>
      [...root.querySelectorAll('button')].find((b) => b.textContent.trim() === name)!;
    return {
      at,
      key,
      async fill(label: string, value: string): Promise<void> {
        const input = at(label);
        input.value = value;
        input.dispatchEvent(new Event(input.tagName === 'SELECT' ? 'change' : 'input'));
        await fixture.whenStable();
      },
      async tap(name: string): Promise<void> {
        key(name).click();
        await fixture.whenStable();
      },
    };
  }

  it('keeps what was typed when kit is turned and when the machine is another', async () => {
    const { at, key, fill, tap } = await shown();
    expect(key('Try it').disabled).toBeTrue();
    await fill('Title', 'Cold one');
    await fill('Cold', '-17');
    await tap('Load tester');
    expect([at('Title').value, at('Cold').value]).toEqual(['Cold one', '-17']);
    await fill('Machine', 'ev');
    expect([at('Title').value, at('Cold').value, at('Machine').value]).toEqual(['Cold one', '-17', 'ev']);
    expect(key('Load tester').getAttribute('aria-pressed')).toBe('false');
    expect(key('Try it').disabled).toBeFalse();
    await fill('Cold', '-170');
    expect(key('Try it').disabled).toBeTrue();
  });

  it('goes to the case as it stands, and begins with it the next time', async () => {
    const { fill, tap } = await shown();
    await fill('Title', 'Left by the barn');
    for (const { name } of PRACTICE_KIT.slice(1)) await tap(name);
    const go = spyOn(TestBed.inject(Router), 'navigate').and.resolveTo(true);
    await tap('Try it');
    const [, code] = go.calls.mostRecent().args[0] as [string, string];
    expect(readWrittenCode(code)).toEqual({
      ...BLANK_CASE,
      title: 'Left by the barn',
      kit: [PRACTICE_KIT[0]!.id],
    });
    TestBed.resetTestingModule();
    const again = await shown();
    expect(again.at('Title').value).toBe('Left by the barn');
  });

  it('begins with the case it is opened from, one that was made as one that was written', async () => {
    const written = { ...BLANK_CASE, title: 'Twice', cause: 'starter', tempC: 3 } as const;
    const one = await shown(codeOfWritten(written));
    expect([one.at('Title').value, one.at('Why it').value]).toEqual(['Twice', 'starter']);
    TestBed.resetTestingModule();
    const other = await shown(codeOfMade({ machineClass: 'boat', cause: 'drain', tempC: 9 }, 44));
    expect([other.at('Machine').value, other.at('Why it').value, other.at('Number').value]).toEqual([
      'boat',
      'drain',
      '44',
    ]);
  });
});
