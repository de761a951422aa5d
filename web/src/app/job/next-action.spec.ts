import { provideZonelessChangeDetection } from '@angular/core';
import { type ComponentFixture, TestBed } from '@angular/core/testing';
import { NextAction } from './next-action';

describe('NextAction', () => {
  let fixture: ComponentFixture<NextAction>;
  let gone: number;
  const enter = (): void => {
    document.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter' }));
  };

  beforeEach(async () => {
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection()] });
    fixture = TestBed.createComponent(NextAction);
    fixture.componentRef.setInput('label', 'Go on');
    gone = 0;
    fixture.componentInstance.go.subscribe(() => gone++);
    (document.activeElement as HTMLElement | null)?.blur();
    await fixture.whenStable();
  });

  it('goes on by a tap and by Enter', () => {
    (fixture.nativeElement as HTMLElement).querySelector('button')!.click();
    enter();
    expect(gone).toBe(2);
  });

  it('leaves Enter to whatever has the focus', () => {
    for (const name of ['input', 'button', 'select', 'textarea']) {
      const field = document.body.appendChild(document.createElement(name));
      field.focus();
      enter();
      field.remove();
    }
    expect(gone).toBe(0);
  });

  it('leaves Enter to an open dialog', () => {
    const dialog = document.body.appendChild(document.createElement('div'));
    dialog.className = 'modal';
    enter();
    dialog.remove();
    expect(gone).toBe(0);
  });

  it('does nothing while it is not to be done', async () => {
    fixture.componentRef.setInput('disabled', true);
    await fixture.whenStable();
    enter();
    (fixture.nativeElement as HTMLElement).querySelector('button')!.click();
    expect(gone).toBe(0);
  });
});
