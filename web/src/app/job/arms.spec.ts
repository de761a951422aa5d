import { ChangeDetectionStrategy, Component, provideZonelessChangeDetection, signal } from '@angular/core';
import { type ComponentFixture, TestBed } from '@angular/core/testing';
import { ARMS_AFTER_MS } from './arming';
import { Arms } from './arms';

@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Arms],
  template: `<button type="button" [vtArms]="act()" (click)="done.push(act())">{{ act() }}</button>`,
})
class Steps {
  readonly act = signal('black off');
  readonly done: string[] = [];
}

describe('A button whose act changes under the finger', () => {
  const ARMS = 60;
  let fixture: ComponentFixture<Steps>;
  const button = (): HTMLButtonElement => (fixture.nativeElement as HTMLElement).querySelector('button')!;
  const press = (): boolean => button().dispatchEvent(new PointerEvent('pointerdown', { bubbles: true }));
  const tap = (): boolean => button().dispatchEvent(new MouseEvent('click', { bubbles: true, detail: 1 }));
  const isArmed = (): boolean => button().getAttribute('aria-disabled') === null;
  const become = async (act: string): Promise<void> => {
    fixture.componentInstance.act.set(act);
    await fixture.whenStable();
  };
  const armed = async (): Promise<void> => {
    const from = performance.now();
    while (!isArmed() && performance.now() - from < 5_000) {
      await new Promise((done) => setTimeout(done, 5));
      fixture.detectChanges();
    }
  };

  beforeEach(async () => {
    TestBed.configureTestingModule({
      providers: [provideZonelessChangeDetection(), { provide: ARMS_AFTER_MS, useValue: ARMS }],
    });
    fixture = TestBed.createComponent(Steps);
    await fixture.whenStable();
  });

  it('takes no tap until it has stood still for a moment, and shows that', async () => {
    expect(isArmed()).toBeFalse();
    expect(button().classList).toContain('arming');
    button().click();
    await armed();
    button().click();
    expect(fixture.componentInstance.done).toEqual(['black off']);
    await become('red off');
    expect(isArmed()).toBeFalse();
    button().click();
    await armed();
    button().click();
    expect(fixture.componentInstance.done).toEqual(['black off', 'red off']);
  });

  it('takes none that was begun for what stood there before, however late it ends', async () => {
    await armed();
    press();
    await become('red off');
    await armed();
    tap();
    expect(fixture.componentInstance.done).toEqual([]);
    press();
    tap();
    expect(fixture.componentInstance.done).toEqual(['red off']);
  });

  it('takes the click of an aid, though a finger had slid off before', async () => {
    await armed();
    press();
    await become('red off');
    await armed();
    button().click();
    expect(fixture.componentInstance.done).toEqual(['red off']);
  });

  it('goes by a key as by a finger', async () => {
    await armed();
    button().dispatchEvent(new KeyboardEvent('keydown', { key: ' ', bubbles: true }));
    await become('red off');
    await armed();
    button().click();
    expect(fixture.componentInstance.done).toEqual([]);
  });
});
