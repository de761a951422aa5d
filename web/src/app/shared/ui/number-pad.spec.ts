import { provideZonelessChangeDetection } from '@angular/core';
import { type ComponentFixture, TestBed } from '@angular/core/testing';
import { NumberPad } from './number-pad';

describe('NumberPad', () => {
  let fixture: ComponentFixture<NumberPad>;
  const text = (): string => fixture.componentInstance.text();
  const press = (...names: string[]): void => {
    for (const name of names) {
      const keys = [...(fixture.nativeElement as HTMLElement).querySelectorAll('button')];
      keys.find((k) => k.textContent === name || k.ariaLabel === name)!.click();
    }
  };
  const type = (key: string, more: KeyboardEventInit = {}): void => {
    document.dispatchEvent(new KeyboardEvent('keydown', { key, ...more }));
  };

  beforeEach(async () => {
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection()] });
    fixture = TestBed.createComponent(NumberPad);
    await fixture.whenStable();
  });

  it('puts digits together, with one point', () => {
    press('1', '1', '.', '6', '.', '2');
    expect(text()).toBe('11.62');
  });

  it('changes the sign both ways, and deletes the last', () => {
    press('5', '±');
    expect(text()).toBe('-5');
    press('±', 'Delete last');
    expect(text()).toBe('');
    press('Delete last');
    expect(text()).toBe('');
  });

  it('takes no more digits than a reading has', () => {
    press(...'123456789'.split(''));
    expect(text()).toBe('123456');
  });

  it('hears the keyboard, a comma as a point', () => {
    for (const key of ['1', '2', ',', '4', 'x', '-']) type(key);
    expect(text()).toBe('-12.4');
    type('Backspace');
    expect(text()).toBe('-12.');
  });

  it('leaves keys alone that belong to a field, a shortcut or a dialog', () => {
    const field = document.body.appendChild(document.createElement('input'));
    field.dispatchEvent(new KeyboardEvent('keydown', { key: '1', bubbles: true }));
    type('2', { ctrlKey: true });
    const modal = document.body.appendChild(document.createElement('div'));
    modal.className = 'modal';
    type('3');
    expect(text()).toBe('');
    field.remove();
    modal.remove();
  });
});
