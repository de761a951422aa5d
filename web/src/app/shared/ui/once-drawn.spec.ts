import { ChangeDetectionStrategy, Component, provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { whenDrawn } from '../model/idle';
import { onceDrawn } from './once-drawn';

@Component({
  selector: 'vt-drawn-host',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `{{ stands() ? 'below' : 'above' }}`,
})
class DrawnHost {
  readonly stands = onceDrawn();
}

describe('onceDrawn', () => {
  it('comes true after the first frame, and is drawn by then', async () => {
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection()] });
    const { nativeElement: root } = TestBed.createComponent(DrawnHost) as { nativeElement: HTMLElement };
    TestBed.tick();
    expect(root.textContent).toBe('above');
    await whenDrawn();
    await new Promise((resolve) => setTimeout(resolve));
    expect(root.textContent).toBe('below');
  });

  it('draws nothing on a page that was left meanwhile', async () => {
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection()] });
    const fixture = TestBed.createComponent(DrawnHost);
    fixture.destroy();
    await whenDrawn();
    await new Promise((resolve) => setTimeout(resolve));
    expect(fixture.componentInstance.stands()).toBeFalse();
  });
});
