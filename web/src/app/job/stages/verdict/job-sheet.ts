import { withinSentence } from '@words/numbers';
import { callWord } from '@words/call-words';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  ElementRef,
  inject,
  input,
  signal,
} from '@angular/core';
import { act, type HookupState, NOTHING_CONNECTED } from '@voltrek/core/hookup';
import { type JobSheet, sheetOfJob } from '@voltrek/core/job';
import type { VerdictRecord } from '@voltrek/core/verdict';
import { Store } from '@ngrx/store';
import { crewCopy } from '../../../shared/data/crew';
import { nameOf } from '@words/figures';
import { CircuitView } from '../../../shared/drawing/circuit-view';
import { layoutCircuit } from '../../../shared/drawing/circuit-layout';
import { selectRescue, type Work } from '../../../shared/job/job-selectors';
import { PhotosOfJob } from '../../../shared/sync/photos-of-job';
import { jpegUrl } from '../../../shared/ui/jpeg-url';
import { readingLines } from './sheet-text';
import { svgText } from './svg-text';
import { JOB_SHEET as T } from '@words/screens/job-stages-verdict';

/** The sheet to hand over: as PDF to print and sign, and as JSON for other programs. */
@Component({
  selector: 'vt-job-sheet',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [CircuitView],
  template: `
    <div>
      <h3>{{ title() }}</h3>
      <p>
        {{
          t.content({
            readings: readings(),
            attempts: work().job.attempts.length,
          })
        }}
      </p>
      @if (!work().job.verdict) {
        <p class="caution"><span aria-hidden="true">!</span> {{ t.noVerdict }}</p>
      }
      <div class="keys">
        <button type="button" class="key strong" [disabled]="isMaking()" (click)="makePdf()">
          {{ isMaking() ? t.makingThePdf : t.saveAsPdf }}
        </button>
        <a class="key" [href]="'/api/jobs/' + work().job.id + '/sheet'" [download]="name() + '.json'">{{
          t.saveAsJson
        }}</a>
      </div>
      @if (problem(); as text) {
        <p class="problem" role="alert">{{ text }}</p>
      }
      <span class="dim" role="status">{{ saved() }}</span>
    </div>
    @if (drawing(); as d) {
      <div class="preview"><vt-circuit [drawing]="d" /></div>
    }
  `,
  styles: `
    @use 'media';

    :host {
      display: grid;
      grid-template-columns: minmax(0, 1fr) 190px;
      gap: 20px;
    }
    p,
    .keys {
      margin-top: 8px;
    }
    .preview {
      height: 280px;
      border: 1px solid var(--line);
    }
    @include media.narrow {
      :host {
        grid-template-columns: 1fr;
      }
    }
  `,
})
export class JobSheetPart {
  protected readonly t = T;

  readonly work = input.required<Work>();
  readonly record = input.required<VerdictRecord>();

  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private readonly store = inject(Store);
  private readonly crew = this.store.selectSignal(crewCopy.selectCopy);
  private readonly rescue = this.store.selectSignal(selectRescue);

  private readonly photos = inject(PhotosOfJob);

  protected readonly isMaking = signal(false);
  protected readonly problem = signal<string | null>(null);
  protected readonly saved = signal('');
  protected readonly readings = computed(() => readingLines(this.work()).length);
  protected readonly title = computed(() =>
    T.jobSheet({ title: withinSentence(callWord(this.work().job.call.callNumber)) }),
  );
  protected readonly name = computed(() => `job-sheet-${this.work().job.call.callNumber}`);

  /** The hook-up with every clamp on, as it was worked from the plan; nothing to draw where nothing was joined. */
  protected readonly drawing = computed(() => {
    const { job, machine, donorMachine } = this.work();
    const rescue = this.rescue();
    if (!rescue || !job.everConnected) return null;
    const joined = rescue.orders.hookup.reduce<HookupState>(
      (state, { action }) => act(state, action),
      NOTHING_CONNECTED,
    );
    return layoutCircuit({
      machine,
      donor: donorMachine,
      scene: rescue.scene,
      hookup: joined,
      isCranking: false,
      step: null,
      machineName: 'casualty',
      showPins: false,
    });
  });

  /** The photos that are at hand, as JPEG: a PDF holds nothing else. */
  private async pictures({ photos }: JobSheet): Promise<ReadonlyMap<string, string>> {
    const { id } = this.work().job;
    const made = await Promise.all(
      photos.map(async ({ photoId }) => {
        const picture = await this.photos.find(id, photoId);
        return picture ? ([photoId, await jpegUrl(picture)] as const) : null;
      }),
    );
    return new Map(made.filter((one) => one !== null));
  }

  protected async makePdf(): Promise<void> {
    this.isMaking.set(true);
    this.problem.set(null);
    this.saved.set('');
    try {
      const [{ savePdf }, { sheetDocument }] = await Promise.all([
        import('../../../shared/ui/save-pdf'),
        import('./sheet-pdf'),
      ]);
      const { job, situation, earlierFlatCalls } = this.work();
      const svg = this.host.querySelector<SVGSVGElement>('.preview svg');
      const by = nameOf(this.crew(), job.openedBy);
      const sheet = sheetOfJob(job, situation.record.machine, earlierFlatCalls);
      const pictures = await this.pictures(sheet);
      const document = sheetDocument(sheet, this.record(), this.work(), by, svg && svgText(svg), pictures);
      await savePdf(document, `${this.name()}.pdf`);
      this.saved.set(T.pdfIsSaved({ name: this.name() }));
    } catch {
      this.problem.set(T.pdfFailed);
    } finally {
      this.isMaking.set(false);
    }
  }
}
