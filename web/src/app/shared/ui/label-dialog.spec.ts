import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { NgbActiveModal } from '@ng-bootstrap/ng-bootstrap/modal';
import { LabelDialog } from './label-dialog';

describe('LabelDialog', () => {
  async function show() {
    const ended: unknown[] = [];
    const modal = { close: (how: unknown) => ended.push(how), dismiss: () => ended.push(null) };
    TestBed.configureTestingModule({
      providers: [provideZonelessChangeDetection(), { provide: NgbActiveModal, useValue: modal }],
    });
    const fixture = TestBed.createComponent(LabelDialog);
    await fixture.whenStable();
    const alert = (): string | undefined =>
      (fixture.nativeElement as HTMLElement).querySelector('[role=alert]')?.textContent.trim();
    return { fixture, alert, ended };
  }

  for (const [error, told] of [
    ['NotAllowedError', 'The browser does not let this page use the camera. Type the code instead.'],
    ['NotFoundError', 'This device has no camera.'],
    ['NotReadableError', 'The camera could not be started. Type the code instead.'],
  ] as const)
    it(`tells why there is no picture: ${error}`, async () => {
      spyOn(navigator.mediaDevices, 'getUserMedia').and.rejectWith(new DOMException('', error));
      const { fixture, alert, ended } = await show();
      await fixture.whenStable();
      expect(alert()).toBe(told);
      expect(ended).toEqual([]);
    });

  it('lets the camera go when it is left, even before the picture came', async () => {
    const stream = document.createElement('canvas').captureStream();
    let give: (stream: MediaStream) => void = () => undefined;
    spyOn(navigator.mediaDevices, 'getUserMedia').and.returnValue(new Promise((done) => (give = done)));
    const { fixture } = await show();
    fixture.destroy();
    give(stream);
    await Promise.resolve();
    await Promise.resolve();
    expect(stream.getTracks().map((track) => track.readyState)).toEqual(['ended']);
  });
});
