import { ChangeDetectionStrategy, Component, provideZonelessChangeDetection, signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { PinField } from './pin-field';

@Component({
  selector: 'vt-test-host',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [PinField],
  template: `<vt-pin-field label="PIN" [(pin)]="pin" />`,
})
class Host {
  readonly pin = signal('');
}

describe('a PIN field', () => {
  it('takes digits alone, twelve at the most, and shows none of them', async () => {
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection()] });
    const fixture = TestBed.createComponent(Host);
    await fixture.whenStable();
    const field = (fixture.nativeElement as HTMLElement).querySelector('input')!;
    expect(field.type).toBe('password');
    for (const [typed, pin] of [
      ['48a0 2-63', '480263'],
      ['12345678901234', '123456789012'],
      ['abc', ''],
    ] as const) {
      field.value = typed;
      field.dispatchEvent(new Event('input'));
      expect(fixture.componentInstance.pin()).toBe(pin);
      expect(field.value).toBe(pin);
    }
    fixture.componentInstance.pin.set('9');
    await fixture.whenStable();
    expect(field.value).toBe('9');
  });
});
