import { ChangeDetectionStrategy, Component, provideZonelessChangeDetection, signal } from '@angular/core';
import { type ComponentFixture, TestBed } from '@angular/core/testing';
import { stepSeen } from './step-seen';

@Component({
  selector: 'vt-low-room',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="room" style="height: 60px; overflow: auto">
      <p class="line" style="height: 40px; margin: 0">{{ step() }}: red on the plus post</p>
      <p class="line" style="height: 40px; margin: 200px 0 0">{{ step() }}: gas</p>
    </div>
  `,
})
class LowRoom {
  readonly step = signal('first');
  readonly seen = stepSeen(this.step, '.line', this.step);
}

describe('stepSeen', () => {
  let fixture: ComponentFixture<LowRoom>;
  const comes = async (isSeen: boolean): Promise<void> => {
    const from = performance.now();
    while (fixture.componentInstance.seen.isSeen() !== isSeen && performance.now() - from < 3_000)
      await new Promise((done) => setTimeout(done, 10));
    expect(fixture.componentInstance.seen.isSeen()).toBe(isSeen);
  };

  beforeEach(async () => {
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection()] });
    fixture = TestBed.createComponent(LowRoom);
    await fixture.whenStable();
  });

  it('is false while a hazard of the step is below the fold, and true once it was on the screen', async () => {
    await comes(false);
    fixture.componentInstance.seen.show();
    await comes(true);
  });

  it('begins again with the next step', async () => {
    await comes(false);
    fixture.componentInstance.seen.show();
    await comes(true);
    (fixture.nativeElement as HTMLElement).querySelector('.room')!.scrollTop = 0;
    fixture.componentInstance.step.set('second');
    await fixture.whenStable();
    await comes(false);
  });
});
