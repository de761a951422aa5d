import { provideZonelessChangeDetection } from '@angular/core';
import { type ComponentFixture, TestBed } from '@angular/core/testing';
import { provideState, provideStore, Store } from '@ngrx/store';
import { SettingsActions, settingsFeature } from '../shared/data/settings';
import { ARMS_AFTER_MS, HOLD_MS } from './arming';
import { NextAction } from './next-action';

describe('NextAction', () => {
  let fixture: ComponentFixture<NextAction>;
  let gone: number;
  const enter = (init: KeyboardEventInit = {}): void => {
    document.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', ...init }));
  };
  const button = (): HTMLButtonElement =>
    (fixture.nativeElement as HTMLElement).querySelector<HTMLButtonElement>('button')!;
  const say = async (inputs: Readonly<Record<string, unknown>>): Promise<void> => {
    for (const [name, value] of Object.entries(inputs)) fixture.componentRef.setInput(name, value);
    await fixture.whenStable();
  };

  async function show(armsAfterMs: number, holdMs = 500): Promise<void> {
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        provideStore(),
        provideState(settingsFeature),
        { provide: ARMS_AFTER_MS, useValue: armsAfterMs },
        { provide: HOLD_MS, useValue: holdMs },
      ],
    });
    fixture = TestBed.createComponent(NextAction);
    gone = 0;
    fixture.componentInstance.go.subscribe(() => gone++);
    (document.activeElement as HTMLElement | null)?.blur();
    await say({ label: 'Go on' });
  }

  it('goes on by a tap and by Enter', async () => {
    await show(0);
    button().click();
    enter();
    expect(gone).toBe(2);
  });

  describe('while steps are spoken', () => {
    let stage: HTMLElement;
    const tap = (target: Element, type = 'click'): void => {
      target.dispatchEvent(new PointerEvent(type, { bubbles: true, detail: type === 'click' ? 1 : 0 }));
    };
    const tapWhole = (target: Element): void => {
      tap(target, 'pointerdown');
      tap(target);
    };
    const headset = (key: string): void => {
      document.dispatchEvent(new KeyboardEvent('keydown', { key }));
    };
    const speak = async (value: boolean): Promise<void> => {
      TestBed.inject(Store).dispatch(SettingsActions.set({ key: 'speaks', value }));
      await fixture.whenStable();
    };
    beforeEach(() => {
      stage = document.createElement('section');
      stage.className = 'stage';
      stage.innerHTML = '<p>text</p><button type="button">key</button><label>field</label>';
      document.body.append(stage);
    });
    afterEach(() => stage.remove());

    it('goes on by a tap anywhere on the stage and by a headset, and by neither once they are not', async () => {
      await show(0);
      const text = stage.querySelector('p')!;
      tapWhole(text);
      headset('MediaTrackNext');
      expect(gone).toBe(0);
      await speak(true);
      tapWhole(text);
      headset('MediaTrackNext');
      expect(gone).toBe(2);
      await speak(false);
      tapWhole(text);
      headset('MediaPlayPause');
      expect(gone).toBe(2);
    });

    it('leaves a tap on a key, on a field or beside the stage to them', async () => {
      await show(0);
      await speak(true);
      for (const own of [stage.querySelector('button')!, stage.querySelector('label')!, document.body])
        tapWhole(own);
      expect(gone).toBe(0);
    });

    it('takes no tap that began for another step, and none for what is held, not advised or barred', async () => {
      await show(0);
      await speak(true);
      const text = stage.querySelector('p')!;
      tap(text, 'pointerdown');
      await say({ label: 'Black clamp is on' });
      tap(text);
      expect(gone).toBe(0);
      for (const unfit of [
        { holds: true },
        { holds: false, isPlain: true },
        { isPlain: false, disabled: true },
      ]) {
        await say(unfit);
        tapWhole(text);
        headset('MediaTrackNext');
        expect(gone).withContext(JSON.stringify(unfit)).toBe(0);
      }
    });
  });

  describe('that is held', () => {
    const press = (type: string): void => {
      button().dispatchEvent(new PointerEvent(type, { bubbles: true }));
    };
    const tapped = (detail: number): void => {
      button().dispatchEvent(new MouseEvent('click', { bubbles: true, detail }));
    };
    const HOLD = 40;
    const after = (ms: number): Promise<void> => new Promise((done) => setTimeout(done, ms));
    beforeEach(async () => {
      await show(0, HOLD);
      await say({ holds: true });
    });

    it('is done when it was held long enough, once', async () => {
      const from = performance.now();
      press('pointerdown');
      while (gone === 0 && performance.now() - from < 2_000) await after(1);
      expect(performance.now() - from).toBeGreaterThanOrEqual(HOLD - 1);
      press('pointerup');
      tapped(1);
      await after(2 * HOLD);
      expect(gone).toBe(1);
    });

    it('is not done by a tap, by a finger that slides off, or by a key let go early', async () => {
      press('pointerdown');
      press('pointerup');
      tapped(1);
      press('pointerdown');
      press('pointerleave');
      enter();
      document.dispatchEvent(new KeyboardEvent('keyup', { key: 'Enter' }));
      await after(3 * HOLD);
      expect(gone).toBe(0);
    });

    it('is not done when it became another while it was held: that was not meant', async () => {
      press('pointerdown');
      await say({ label: 'Black clamp is on' });
      await after(3 * HOLD);
      expect(gone).toBe(0);
      expect(button().classList).not.toContain('holding');
      press('pointerup');
      tapped(1);
      press('pointerdown');
      await after(3 * HOLD);
      expect(gone).toBe(1);
    });

    it('is done by Enter held, and by an aid that can only click', async () => {
      enter();
      enter({ repeat: true });
      await after(3 * HOLD);
      expect(gone).toBe(1);
      document.dispatchEvent(new KeyboardEvent('keyup', { key: 'Enter' }));
      tapped(0);
      expect(gone).toBe(2);
    });

    it('tells in its label that it is held', () => {
      expect(button().textContent).toContain('Hold: Go on');
    });
  });

  it('is not done by a finger that went down on another action and lets go late', async () => {
    await show(0);
    const down = (): boolean => button().dispatchEvent(new PointerEvent('pointerdown', { bubbles: true }));
    const click = (): boolean =>
      button().dispatchEvent(new MouseEvent('click', { bubbles: true, detail: 1 }));
    down();
    await say({ label: 'Crank' });
    click();
    expect(gone).toBe(0);
    down();
    click();
    expect(gone).toBe(1);
  });

  it('leaves Enter to a field that is typed into', async () => {
    await show(0);
    for (const name of ['input', 'select', 'textarea']) {
      const field = document.body.appendChild(document.createElement(name));
      field.focus();
      enter();
      field.remove();
    }
    expect(gone).toBe(0);
  });

  it('leaves Enter to an open dialog', async () => {
    await show(0);
    const dialog = document.body.appendChild(document.createElement('div'));
    dialog.className = 'modal';
    enter();
    dialog.remove();
    expect(gone).toBe(0);
  });

  it('does nothing while it is not to be done', async () => {
    await show(0);
    await say({ disabled: true });
    enter();
    button().click();
    expect(gone).toBe(0);
  });

  it('acts once for a key that is held', async () => {
    await show(0);
    enter();
    for (let i = 0; i < 5; i++) enter({ repeat: true });
    expect(gone).toBe(1);
  });

  describe('when it changes under the finger', () => {
    beforeEach(() => jasmine.clock().install());
    afterEach(() => jasmine.clock().uninstall());
    const pass = async (ms: number): Promise<void> => {
      jasmine.clock().tick(ms);
      fixture.detectChanges();
      await Promise.resolve();
    };
    const now = (inputs: Readonly<Record<string, unknown>>): void => {
      for (const [name, value] of Object.entries(inputs)) fixture.componentRef.setInput(name, value);
      fixture.detectChanges();
    };

    function showNow(): void {
      TestBed.configureTestingModule({
        providers: [
          provideZonelessChangeDetection(),
          provideStore(),
          provideState(settingsFeature),
          { provide: ARMS_AFTER_MS, useValue: 400 },
        ],
      });
      fixture = TestBed.createComponent(NextAction);
      gone = 0;
      fixture.componentInstance.go.subscribe(() => gone++);
      (document.activeElement as HTMLElement | null)?.blur();
      now({ label: 'Red is on', action: 'red' });
    }

    it('takes no tap and no key until it has stood still, and shows it', async () => {
      showNow();
      button().click();
      enter();
      expect(gone).toBe(0);
      expect(button().getAttribute('aria-disabled')).toBe('true');
      await pass(399);
      button().click();
      expect(gone).toBe(0);
      await pass(1);
      expect(button().getAttribute('aria-disabled')).toBeNull();
      button().click();
      expect(gone).toBe(1);
    });

    it('takes the second tap of two for nothing, though both steps are called alike', async () => {
      showNow();
      await pass(400);
      button().click();
      now({ action: 'black' });
      button().click();
      enter();
      expect(gone).toBe(1);
      await pass(400);
      button().click();
      expect(gone).toBe(2);
    });

    it('stays as it is while only a figure in it changes', async () => {
      showNow();
      now({ label: 'Take 1 V', action: undefined });
      await pass(400);
      now({ label: 'Take 11.6 V' });
      button().click();
      expect(gone).toBe(1);
    });
  });
});
