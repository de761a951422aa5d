import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import {
  type CheckId,
  checkOf,
  isAtFault,
  type Symptom,
  symptomsOf,
  walkRound,
} from '@voltrek/core/diagnosis';
import { type Stage, startsAlone } from '@voltrek/core/job';
import { CHECK_WORDS } from '@words/diagnosis-words';
import { SYMPTOM_WORDS } from '@words/words';
import { NextAction } from '../next-action';
import { DriverSays } from '../driver-says-dialog';
import { MendHere } from '../mend-here';
import { Suspects } from '../suspects';
import type { Work } from '../../shared/job/job-selectors';
import { Reporter } from '../../shared/job/reporter';
import { CHECKS as T } from '@words/screens/job-stages';

/** The driver's symptom, and the causes that stop a start without being the battery. */
@Component({
  selector: 'vt-checks',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MendHere, NextAction, Suspects],
  template: `
    <section class="stage" aria-labelledby="stage-title">
      <header>
        <h1 id="stage-title">{{ t.checks }}</h1>
        <span class="dim">{{ t.ofDone({ answered: answered(), checks: checks().length }) }}</span>
      </header>
      <div class="symptoms" role="group" [attr.aria-label]="t.whatItDoes">
        @for (symptom of symptoms(); track symptom) {
          <button
            type="button"
            class="key"
            [attr.aria-pressed]="work().job.symptoms.includes(symptom)"
            (click)="tick(symptom)"
          >
            {{ symptomWords[symptom] }}
          </button>
        }
        @if (work().machine.engine) {
          <button
            type="button"
            class="key"
            [attr.aria-pressed]="starts()"
            (click)="record('try-alone', 'started')"
          >
            {{ t.starts }}
          </button>
        }
        <button type="button" class="key strong" (click)="driver.open()">
          {{ t.driverSays({ answers: answers() ? ', ' + answers() : '' }) }}
        </button>
      </div>
      <vt-mend-here [work]="work()" />
      <vt-suspects [work]="work()" (opened)="opened.emit($event)" />
      <div class="ruled checks" role="group" [attr.aria-label]="t.looksTitle">
        @for (check of checks(); track check) {
          <div role="group" [attr.aria-label]="words[check].ask">
            <span>{{ words[check].ask }}</span>
            @for (outcome of outcomes(check); track outcome) {
              <button
                type="button"
                class="key"
                [class.fault]="isAtFault(check, outcome)"
                [attr.aria-pressed]="work().job.findings[check] === outcome"
                (click)="record(check, outcome)"
              >
                {{ words[check].outcomes?.[outcome] ?? outcome }}
              </button>
            }
          </div>
        }
      </div>
    </section>
    <vt-next-action [label]="label()" (go)="next.emit()" />
  `,
  styles: `
    @use 'media';

    :host {
      display: contents;
    }
    /* All checks of a road vehicle on one screen, without scrolling. */
    .stage {
      gap: 8px;
    }
    .symptoms {
      display: grid;
      grid-template-columns: repeat(5, 1fr);
      gap: 6px;
    }
    .symptoms .key {
      padding: 4px 6px;
      font-size: var(--text-s);
    }
    .checks > div {
      display: flex;
      align-items: center;
      gap: 8px;
      padding: 1px 0;
    }
    .checks > div > span {
      flex: 1 0 186px;
    }
    /* Four answers of one check leave its question two lines. */
    .checks .key {
      flex: 0 1 104px;
      min-width: 0;
      padding: 4px 6px;
      font-size: var(--text-s);
    }
    @include media.narrow {
      .symptoms {
        grid-template-columns: repeat(2, 1fr);
      }
      .checks > div {
        flex-wrap: wrap;
        justify-content: end;
      }
      .checks > div > span {
        flex: 1 1 82px;
      }
      .checks .key {
        flex-basis: 84px;
      }
    }
  `,
})
export class Checks {
  protected readonly t = T;

  readonly work = input.required<Work>();
  readonly next = output();
  readonly opened = output<Stage>();

  private readonly reporter = inject(Reporter);

  protected readonly driver = inject(DriverSays);
  /** How much the driver said so far. */
  protected readonly answers = computed(
    () => Object.keys(this.work().job.findings).filter((check) => check.startsWith('ask-')).length,
  );
  /** The symptoms of such a machine; one that was told before it was identified stays, to be taken back. */
  protected readonly symptoms = computed(() => [
    ...new Set([...symptomsOf(this.work().machine), ...this.work().job.symptoms]),
  ]);
  /** It starts by itself, and its owner wants it looked at. */
  protected readonly starts = computed(() => startsAlone(this.work().job));
  protected readonly symptomWords = SYMPTOM_WORDS;
  protected readonly words = CHECK_WORDS;
  protected readonly isAtFault = isAtFault;
  protected readonly checks = computed(() => walkRound(this.work().machine));
  protected readonly answered = computed(
    () => this.checks().filter((check) => this.work().job.findings[check] !== undefined).length,
  );
  protected readonly label = computed(() =>
    this.answered() === this.checks().length ? T.checksDone : T.goOnToLocate,
  );

  protected tick(symptom: Symptom): void {
    this.reporter.report('symptom.recorded', { symptom });
  }

  /** The outcomes of a look, the sound one first. */
  protected outcomes(check: CheckId): readonly string[] {
    return [...checkOf(check).outcomes].reverse();
  }

  /** The same tap again takes it back. */
  protected record(check: CheckId, found: string): void {
    if (this.work().job.findings[check] === found) {
      this.reporter.report('finding.withdrawn', { check });
      return;
    }
    this.reporter.report('finding.recorded', { check, found });
    const { stop } = checkOf(check);
    if (stop && isAtFault(check, found)) this.reporter.report('stop.raised', { stop });
  }
}
