import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { FOLLOW_UP_WORDS } from '@words/follow-up-words';
import { ownerAdvice, currentVerdict } from '@voltrek/core/job';
import { Store } from '@ngrx/store';
import { addDays, startOfDay } from 'date-fns';
import type { Work } from '../../../shared/job/job-selectors';
import { crewCopy } from '../../../shared/data/crew';
import { nameOf } from '@words/figures';
import { adviceWords, ownerFinding } from '@words/owner-words';
import type { OwnerPage } from './owner-pdf';
import { When } from '../../../shared/ui/when';
import { OWNER_PAGE as T } from '@words/screens/job-stages-verdict';

/** The advice to the owner, in plain words, as a page to hand over with its dates as a code. */
@Component({
  selector: 'vt-owner-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [When],
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
          <strong>{{ d.on | when: 'weekdayDate' }}</strong>
          <span class="dim">{{ followUpWords[d.kind] }}</span>
        </p>
      }
      <div class="keys">
        <button type="button" class="key strong" [disabled]="isMaking()" (click)="save(p)">
          {{ isMaking() ? t.makingThePdf : t.savePdf }}
        </button>
      </div>
      @if (problem(); as text) {
        <p class="problem" role="alert">{{ text }}</p>
      }
      <span class="dim" role="status">{{ saved() }}</span>
    } @else {
      <p class="dim">{{ t.noVerdict }}</p>
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 8px;
    }
    .finding {
      font-size: var(--text-m);
      font-weight: 600;
      line-height: 1.2;
    }
    li {
      padding: 6px 0;
      font-size: var(--text-s);
      line-height: 1.25;
    }
  `,
})
export class OwnerPagePart {
  protected readonly t = T;

  readonly work = input.required<Work>();

  private readonly crew = inject(Store).selectSignal(crewCopy.selectCopy);
  protected readonly followUpWords = FOLLOW_UP_WORDS;
  protected readonly isMaking = signal(false);
  protected readonly problem = signal<string | null>(null);
  protected readonly saved = signal('');

  protected readonly page = computed((): OwnerPage | null => {
    const { job, machine, vehicle, situation } = this.work();
    const verdict = currentVerdict(job);
    if (!verdict) return null;
    const given = job.recheck?.at ?? job.closedAt;
    const from = new Date(given ?? Date.now());
    const today = startOfDay(new Date());
    const isRead = situation.job.readings.some(({ kind }) => kind === 'rest');
    return {
      callNumber: job.call.callNumber,
      title: [vehicle.plate, `${machine.maker} ${machine.model}`].filter(Boolean).join(', '),
      crewName: nameOf(this.crew(), job.openedBy),
      visitedOn: new Date(given ?? job.lastAt),
      finding: ownerFinding(verdict, { isRead, wasJoined: job.everConnected }),
      advice: ownerAdvice(job, situation).map((advice) => adviceWords(advice, machine.machineClass)),
      dates: verdict.followUps
        .filter(({ days }) => days > 0)
        .map(({ kind, days }) => ({ kind, on: addDays(from, days) }))
        // A date that is past is of no use to anybody.
        .filter(({ on }) => on >= today),
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
      this.saved.set(T.isSaved({ name }));
    } catch {
      this.problem.set(T.pdfFailed);
    } finally {
      this.isMaking.set(false);
    }
  }
}
