import { rpmText } from '@words/figures';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  inject,
  input,
  signal,
} from '@angular/core';
import { fixed } from '@words/numbers';
import { NgbProgressbar } from '@ng-bootstrap/ng-bootstrap/progressbar';
import type { ReadingSource } from '@voltrek/core/job';
import type { Recording } from '@voltrek/core/trace';
import { Chart } from '../../../shared/ui/chart';
import { percent, volts } from '@words/figures';
import { TRACE_NOTE_WORDS } from '@words/measure-words';
import { PlanRunner } from '../../../workers/plan-runner';
import type { TraceRead, TraceRefused } from '../../../workers/trace-read';
import type { Work } from '../../../shared/job/job-selectors';
import { Reporter } from '../../../shared/job/reporter';
import { LiveStore } from './live-store';
import { traceChart, traceSummary } from './trace-chart';
import { takesOf } from './trace-takes';
import { traceRefusal } from '@words/trace-words';
import { TRACE_PART as T } from '@words/screens/job-stages-measure';

/** A try as a logger or the meter saw it: opened from a file or captured now, read in a worker, and taken as readings. */
@Component({
  selector: 'vt-trace-part',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Chart, NgbProgressbar],
  providers: [PlanRunner],
  template: `
    <div class="keys">
      <label class="key file">
        {{ t.open }}
        <input type="file" accept=".csv,.txt,text/csv,text/plain" #file (change)="open(file)" />
      </label>
      @if (live.captured() === null) {
        <button type="button" class="key" [disabled]="!meterReady()" (click)="capture()">
          {{ t.capture }}
        </button>
      } @else {
        <button type="button" class="key strong" (click)="stop()">{{ t.stopCapturing }}</button>
      }
      @if (progress() !== null) {
        <button type="button" class="key" (click)="cancel()">{{ t.cancel }}</button>
      }
    </div>
    @if (live.captured(); as points) {
      <p role="status">
        {{ t.capturing({ points }) }}
        <strong>{{ live.lowestVolts() === null ? '-' : volts(live.lowestVolts()!) }}</strong>
      </p>
    }
    @if (progress(); as share) {
      <p role="status">{{ t.reading({ share: percent(share) }) }}</p>
      <ngb-progressbar [value]="share" [max]="1" [ariaLabel]="t.reading({ share: percent(share) })" />
    }
    @if (problem() ?? live.captureProblem(); as text) {
      <p class="problem" role="alert">{{ text }}</p>
    }
    @if (read(); as r) {
      <div class="chart"><vt-chart [draw]="draw()" [summary]="summary()" /></div>
      <dl>
        @for (f of figures(); track f.name) {
          <div>
            <dt>{{ f.name }}</dt>
            <dd class="figure">{{ f.value }}</dd>
          </div>
        }
      </dl>
      @for (note of notes(); track note) {
        <p class="dim">{{ note }}</p>
      }
      @if (takes().length) {
        <div class="keys">
          <button type="button" class="key strong" [disabled]="isTaken()" (click)="take()">
            {{ isTaken() ? t.taken : t.take + takes().length + t.readingsOfIt }}
          </button>
          <span class="dim">{{ t.points({ name: r.name, rows: r.rows }) }}</span>
        </div>
      }
    } @else if (progress() === null && live.captured() === null) {
      <p class="dim">
        {{ t.hint }}
      </p>
    }
  `,
  styles: `
    :host {
      display: flex;
      flex-direction: column;
      gap: 10px;
      min-height: 0;
    }
    .file {
      display: grid;
      place-items: center;
      position: relative;
    }
    .file input {
      position: absolute;
      inset: 0;
      opacity: 0;
      cursor: pointer;
    }
    .file:focus-within {
      outline: 3px solid var(--lamp);
      outline-offset: 2px;
    }
    .keys {
      align-items: center;
    }
    .chart {
      height: 232px;
    }
    dl {
      display: grid;
      grid-template-columns: repeat(auto-fill, minmax(130px, 1fr));
      gap: 8px 14px;
      margin: 0;
    }
    .figure {
      font-size: var(--text-l);
    }
  `,
})
export class TracePart {
  protected readonly t = T;

  readonly work = input.required<Work>();

  private readonly runner = inject(PlanRunner);
  private readonly reporter = inject(Reporter);
  protected readonly live = inject(LiveStore);

  protected readonly volts = volts;
  protected readonly percent = percent;
  protected readonly progress = signal<number | null>(null);
  protected readonly problem = signal<string | null>(null);
  protected readonly read = signal<TraceRead | null>(null);
  protected readonly isTaken = signal(false);
  private readonly source = signal<ReadingSource>('trace');
  private capturing: AbortController | null = null;
  private isGone = false;

  constructor() {
    inject(DestroyRef).onDestroy(() => {
      this.isGone = true;
      this.capturing?.abort();
    });
  }

  protected readonly meterReady = computed(() => this.live.byInstrument().meter?.state === 'ready');
  protected readonly draw = computed(() => {
    const read = this.read()!;
    return (colours: Parameters<typeof traceChart>[1]) => traceChart(read, colours);
  });
  protected readonly summary = computed(() => traceSummary(this.read()!));
  protected readonly notes = computed(() => {
    const { findings, file } = this.read()!;
    return [
      ...findings.notes.map((note) => TRACE_NOTE_WORDS[note]),
      ...(file?.cutOff ? [T.cutOff] : []),
      ...(file?.timeUnitFrom === 'steps'
        ? [T.timeUnit({ timeUnit: file.timeUnit === 'ms' ? 'milliseconds' : 'seconds' })]
        : []),
    ];
  });

  protected readonly figures = computed(() => {
    const { findings, strength } = this.read()!;
    const { restVolts, keyOnDropVolts, crank, recovery, charging } = findings;
    const shown: { name: string; value: string }[] = [];
    const add = (name: string, value: number | null | undefined, say: (v: number) => string): void => {
      if (value != null) shown.push({ name, value: say(value) });
    };
    const v = (value: number): string => volts(value);
    add('rest', restVolts, v);
    add(T.keyOnDrop, keyOnDropVolts, v);
    add(T.inrushMinimum, crank?.inrushVolts, v);
    add(T.crankMinimum, crank?.minimumVolts, v);
    add(T.crankMean, crank?.meanVolts, v);
    add(T.amps, crank?.meanAmps, (a) => `${fixed(a)} A`);
    add(T.crankedFor, crank && crank.toSeconds - crank.fromSeconds, (s) => `${fixed(s, 1)} s`);
    add(T.speed, crank?.rpm, (rpm) => rpmText(rpm));
    add(T.chatters, crank?.chatterPerSecond, (n) => T.timesASecond({ hertz: fixed(n) }));
    add(T.uneven, crank?.unevenShare, (u) => (u > 0.3 ? T.look({ share: percent(u) }) : T.even));
    add(T.recovery, recovery?.volts, (r) => T.atS({ value: v(r), seconds: fixed(recovery!.afterSeconds) }));
    add(T.chargingFrom, charging?.volts, v);
    add(T.inside, strength?.ohms, (o) => `${fixed(o * 1000, 1)} mohm`);
    add(T.ccaEstimate, strength?.ccaAmps, (a) => `${fixed(a)} A, ${percent(strength!.share)}`);
    return shown;
  });

  /** The readings of the trace for this job. */
  protected readonly takes = computed(() => {
    const read = this.read();
    return read ? takesOf(read, this.work(), this.source()) : [];
  });

  protected async open(from: HTMLInputElement): Promise<void> {
    const [file] = from.files ?? [];
    from.value = '';
    if (!file) return;
    this.source.set('trace');
    await this.readIt(file, file.name);
  }

  protected async capture(): Promise<void> {
    this.capturing = new AbortController();
    this.problem.set(null);
    const recording = await this.live.capture(this.work().job.id, this.capturing.signal);
    if (!recording || this.isGone) return;
    this.source.set('meter');
    await this.readIt(recording, T.captured);
  }

  protected stop(): void {
    this.capturing?.abort();
  }

  protected cancel(): void {
    this.runner.stop();
    this.progress.set(null);
  }

  private async readIt(what: File | Recording, name: string): Promise<void> {
    const { machine, situation } = this.work();
    const run = this.runner.begin();
    this.progress.set(0.001);
    this.problem.set(null);
    this.isTaken.set(false);
    const subject = {
      systemVolts: machine.systemVolts,
      engine: machine.engine,
      rating: machine.batteries[0]!.rating,
      tempC: situation.tempC,
    };
    try {
      const read = await run.ask(
        (worker, subscribe): Promise<TraceRead | TraceRefused> =>
          worker.readTrace(
            what,
            name,
            subject,
            subscribe((share) => this.progress.set(share)),
          ),
      );
      if (!run.isCurrent()) return;
      if ('fault' in read) this.problem.set(traceRefusal(name, read));
      else this.read.set(read);
    } catch {
      if (run.isCurrent()) this.problem.set(T.cannotBeRead({ name }));
    } finally {
      if (run.isCurrent()) this.progress.set(null);
    }
  }

  protected take(): void {
    for (const entry of this.takes()) this.reporter.report(...entry);
    this.isTaken.set(true);
  }
}
