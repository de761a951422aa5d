import { ChangeDetectionStrategy, Component, provideZonelessChangeDetection, signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { Choices } from './choices';

@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Choices],
  template: `
    <div role="radiogroup" aria-label="Test">
      @for (name of names(); track name) {
        <button
          type="button"
          role="radio"
          [attr.aria-checked]="chosen() === name"
          [disabled]="name === 'off'"
          (click)="chosen.set(name)"
        >
          {{ name }}
        </button>
      }
      <a href="#more">More</a>
    </div>
  `,
})
class Group {
  readonly names = signal(['one', 'two', 'off', 'three']);
  readonly chosen = signal<string | null>(null);
}

describe('a group of choices', () => {
  async function show() {
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection()] });
    const fixture = TestBed.createComponent(Group);
    await fixture.whenStable();
    const root = fixture.nativeElement as HTMLElement;
    const radios = (): HTMLButtonElement[] => [...root.querySelectorAll('button')];
    const stops = (): string[] =>
      radios()
        .filter((r) => r.tabIndex === 0)
        .map((r) => r.textContent.trim());
    // A browser gives a real key its code of old as well, which the key manager goes by.
    const press = (key: string, keyCode: number): string => {
      document.activeElement!.dispatchEvent(
        new KeyboardEvent('keydown', { key, keyCode, bubbles: true, cancelable: true } as KeyboardEventInit),
      );
      return document.activeElement!.textContent.trim();
    };
    return { fixture, root, radios, stops, press };
  }

  it('is one stop of the Tab key: the choice that holds, or else the first', async () => {
    const { fixture, stops } = await show();
    expect(stops()).toEqual(['one']);
    fixture.componentInstance.chosen.set('three');
    await fixture.whenStable();
    expect(stops()).toEqual(['three']);
    fixture.componentInstance.names.set(['four', 'five']);
    await fixture.whenStable();
    expect(stops()).withContext('the choice is gone').toEqual(['four']);
  });

  it('goes from choice to choice by arrows, round the ends and past what is off, and chooses nothing by that', async () => {
    const { fixture, radios, stops, press } = await show();
    radios()[0]!.focus();
    expect(press('ArrowRight', 39)).toBe('two');
    expect(press('ArrowDown', 40)).toBe('three');
    expect(stops()).toEqual(['three']);
    expect(press('ArrowRight', 39)).toBe('one');
    expect(press('ArrowLeft', 37)).toBe('three');
    expect(press('Home', 36)).toBe('one');
    expect(press('End', 35)).toBe('three');
    expect(fixture.componentInstance.chosen()).toBeNull();
    await fixture.whenStable();
    expect(stops()).withContext('where the focus is').toEqual(['three']);
  });

  it('leaves keys alone that are pressed on anything else in it', async () => {
    const { root, press } = await show();
    root.querySelector('a')!.focus();
    expect(press('ArrowRight', 39)).toBe('More');
  });
});
