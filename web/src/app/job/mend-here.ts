import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { type Repair, needsStandstill } from '@voltrek/core/diagnosis';
import { anyClampOn } from '@voltrek/core/hookup';
import { mendedOfJob, repairsOfJob } from '@voltrek/core/job';
import type { Work } from '../shared/job/job-selectors';
import { Reporter } from '../shared/job/reporter';
import { mendedProof, repairedPart, repairName } from '@words/repair-words';
import { RepairPrompt } from './repair-prompt';
import { MEND_HERE as T } from '@words/screens/job';

/** The findings that can be mended on the spot, before any help is joined; and the repairs, with their proof. */
@Component({
  selector: 'vt-mend-here',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (offered().length > 0) {
      <section [attr.aria-label]="t.mendItHere">
        <h2>{{ t.titleAlone }}</h2>
        @if (mustClear()) {
          <p class="dim">{{ t.clearFirst }}</p>
        }
        <div class="keys">
          @for (o of offered(); track o.name) {
            <button
              type="button"
              class="key strong"
              [disabled]="mustClear() && standstill(o.repair)"
              (click)="mend(o.repair)"
            >
              {{ o.name }}
            </button>
          }
        </div>
      </section>
    }
    @for (m of mended(); track $index) {
      <p class="done">
        <strong>{{ t.mended({ part: part(m) }) }}</strong> <span class="dim">{{ proof(m) }}</span>
      </p>
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 6px;
    }
    :host:empty {
      display: none;
    }
    h2 {
      margin-bottom: 4px;
      font-size: var(--text-s);
    }
    .keys {
      display: grid;
      grid-template-columns: repeat(2, 1fr);
      gap: 6px;
    }
    .keys .key {
      padding: 4px 10px;
      font-size: var(--text-s);
    }
    .done {
      font-size: var(--text-s);
      line-height: 1.2;
    }
  `,
})
export class MendHere {
  protected readonly t = T;

  readonly work = input.required<Work>();

  private readonly reporter = inject(Reporter);
  private readonly prompt = inject(RepairPrompt);

  protected readonly part = repairedPart;
  protected readonly proof = mendedProof;
  protected readonly standstill = needsStandstill;
  protected readonly offered = computed(() => {
    const { job, machine } = this.work();
    const named = repairsOfJob(job, machine).map(({ repair }) => ({ repair, name: repairName(repair) }));
    return named.filter(({ name }, i) => named.findIndex((other) => other.name === name) === i);
  });
  protected readonly mended = computed(() => mendedOfJob(this.work().job));
  protected readonly mustClear = computed(
    () => anyClampOn(this.work().job.hookup) && this.offered().some(({ repair }) => needsStandstill(repair)),
  );

  protected async mend(repair: Repair): Promise<void> {
    if (await this.prompt.goThrough(this.work(), repair)) this.reporter.report('repair.made', repair);
  }
}
