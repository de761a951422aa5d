import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  type ElementRef,
  inject,
  Injectable,
  signal,
  viewChild,
  afterNextRender,
} from '@angular/core';
import { NgbActiveModal, NgbModal } from '@ng-bootstrap/ng-bootstrap/modal';
import { LABEL_READER as T } from '@words/screens/ui';
import { batteryNamedBy } from './label-text';
import { qrReader } from './qr-reader';

/** Between two looks at what the camera shows, ms. */
const LOOK_EACH_MS = 150;

/** Why there is no picture, by the name of the browser's error. */
const PROBLEMS: Readonly<Record<string, 'refused' | 'noCamera'>> = {
  NotAllowedError: 'refused',
  NotFoundError: 'noCamera',
};

/** Shows the camera until a battery's label is in front of it. */
@Component({
  selector: 'vt-label-dialog',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="sheet">
      <h1 id="label-title">{{ t.title }}</h1>
      @if (problem(); as text) {
        <p class="problem" role="alert">{{ text }}</p>
      } @else {
        <video #video muted playsinline [attr.aria-label]="t.title"></video>
        <p class="dim" role="status">{{ note() }}</p>
      }
      <div class="keys">
        <button type="button" class="key" (click)="modal.dismiss()">{{ t.leave }}</button>
      </div>
    </div>
  `,
  styles: `
    video {
      display: block;
      width: 100%;
      max-height: 50vh;
      border-radius: 6px;
      background: #000;
      object-fit: cover;
    }
    p {
      min-height: 1.5em;
    }
  `,
})
export class LabelDialog {
  protected readonly t = T;
  protected readonly modal = inject(NgbActiveModal);
  protected readonly note = signal<string>(T.starting);
  protected readonly problem = signal<string | null>(null);
  private readonly video = viewChild<ElementRef<HTMLVideoElement>>('video');
  private stream: MediaStream | null = null;
  private isOpen = true;

  constructor() {
    inject(DestroyRef).onDestroy(() => this.stop());
    afterNextRender(() => void this.start());
  }

  private async start(): Promise<void> {
    try {
      // The camera of the back looks at what is in front of the hand.
      this.stream = await navigator.mediaDevices.getUserMedia({ video: { facingMode: 'environment' } });
      if (!this.isOpen) {
        this.stop();
        return;
      }
      const video = this.video()!.nativeElement;
      video.srcObject = this.stream;
      await video.play();
      this.note.set('');
      await this.look(video);
    } catch (error) {
      this.stop();
      this.problem.set(T[PROBLEMS[error instanceof DOMException ? error.name : ''] ?? 'failed']);
    }
  }

  /** Looks again and again, until a label is read or the dialog is left. */
  private async look(video: HTMLVideoElement): Promise<void> {
    const read = await qrReader();
    while (this.isOpen) {
      const text = await read(video);
      const battery = text === null ? null : batteryNamedBy(text);
      if (battery !== null) {
        this.modal.close(battery);
        return;
      }
      if (text !== null) this.note.set(T.otherCode);
      await new Promise((goOn) => setTimeout(goOn, LOOK_EACH_MS));
    }
  }

  private stop(): void {
    this.isOpen = false;
    for (const track of this.stream?.getTracks() ?? []) track.stop();
  }
}

/** Reads the label of a battery with the camera of the device. */
@Injectable({ providedIn: 'root' })
export class LabelReader {
  private readonly modals = inject(NgbModal);

  /** The battery's id or code; null when it was left. */
  async read(): Promise<string | null> {
    const dialog = this.modals.open(LabelDialog, { ariaLabelledBy: 'label-title', centered: true });
    return dialog.result.then(
      (battery: string) => battery,
      () => null,
    );
  }
}
