import { DatePipe } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { FOLLOW_UP_WORDS } from '@voltrek/contracts';
import { ownerAdvice, standingVerdict } from '@voltrek/core/job';
import { Store } from '@ngrx/store';
import { addDays } from 'date-fns';
import type { Work } from '../../../shared/job/job-selectors';
import { sessionFeature } from '../../../shared/state/session';
import { nameOf } from '../../../shared/words/figures';
import { adviceWords, ownerFinding } from '../../../shared/words/owner-words';
import type { OwnerPage } from './owner-pdf';

/** What the owner is told, in plain words, as a page to hand over with its dates as a code. */
@Component({
  selector: 'vt-owner-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [DatePipe],
  template: `
    @if (page(); as p) {
      <p class="finding">{{ p.finding }}</p>
      <ol class="ruled">
        @for (text of p.advice; track text) {
          <li>{{ text }}</li>
        }
      </ol>
      @for (d of p.dates; track d.kind) {
        <p>
          <strong>{{ d.on | date: 'EEE d MMM y' }}</strong>
          <span class="dim">{{ followUpWords[d.kind] }}</span>
        </p>
      }
      <div class="keys">
        <button type="button" class="key strong" [disabled]="isMaking()" (click)="save(p)">
          {{ isMaking() ? 'Making the PDF' : 'Save the page as PDF' }}
        </button>
      </div>
      @if (problem(); as text) {
        <p class="problem" role="alert">{{ text }}</p>
      }
      <span class="dim" role="status">{{ saved() }}</span>
    } @else {
      <p class="dim">Give the verdict first: the page says what it says.</p>
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 8px;
    }
    .finding {
      font-size: 19px;
      font-weight: 600;
      line-height: 1.2;
    }
    li {
      padding: 6px 0;
      font-size: 16px;
      line-height: 1.25;
    }
  `,
})
export class OwnerPagePart {
  readonly work = input.required<Work>();

  private readonly crew = inject(Store).selectSignal(sessionFeature.selectCrew);
  protected readonly followUpWords = FOLLOW_UP_WORDS;
  protected readonly isMaking = signal(false);
  protected readonly problem = signal<string | null>(null);
  protected readonly saved = signal('');

  protected readonly page = computed((): OwnerPage | null => {
    const { job, machine, rules, earlierFlatCalls, vehicle } = this.work();
    const verdict = standingVerdict(job);
    if (!verdict) return null;
    const from = new Date(job.recheck?.at ?? job.closedAt ?? Date.now());
    return {
      callNumber: job.call.callNumber,
      title: [vehicle.plate, `${machine.maker} ${machine.model}`].filter(Boolean).join(', '),
      crewName: nameOf(this.crew(), job.openedBy),
      finding: ownerFinding(verdict),
      advice: ownerAdvice(job, machine, rules, earlierFlatCalls).map(adviceWords),
      dates: verdict.followUps
        .filter(({ days }) => days > 0)
        .map(({ kind, days }) => ({ kind, on: addDays(from, days) })),
    };
  });

  protected async save(page: OwnerPage): Promise<void> {
    this.isMaking.set(true);
    this.problem.set(null);
    try {
      const [{ savePdf }, { ownerDocument }] = await Promise.all([
        import('../../../shared/ui/save-pdf'),
        import('./owner-pdf'),
      ]);
      const name = `for-the-owner-${page.callNumber}.pdf`;
      await savePdf(ownerDocument(page), name);
      this.saved.set(`${name} is saved.`);
    } catch {
      this.problem.set('The PDF could not be made. Read it out instead.');
    } finally {
      this.isMaking.set(false);
    }
  }
}
