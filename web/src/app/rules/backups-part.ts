import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import type { BackupState } from '@voltrek/contracts';
import { MINUTE_MS } from '@voltrek/core/quantities';
import { Store } from '@ngrx/store';
import { finalize } from 'rxjs';
import { Api } from '../shared/data/api';
import { loaded } from '../shared/data/loaded';
import { sessionFeature } from '../shared/data/session';
import { BACKUP_REASON_WORDS, sizeWords } from '@words/backup-words';
import { When } from '../shared/ui/when';
import { BACKUPS_PART as T } from '@words/screens/rules';

/** A house whose last good backup is older than this is warned, ms: a shift and a half. */
const LATE_MS = 12 * 60 * MINUTE_MS;

/** The backups of the house: when, why, how large, and that each was opened; one more at a tap. */
@Component({
  selector: 'vt-backups-part',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [When],
  template: `
    <header>
      <h2>{{ t.backups }}</h2>
      <button type="button" class="key" [disabled]="isBusy()" (click)="make()">
        {{ isBusy() ? t.backingUp : t.backUpNow }}
      </button>
    </header>
    @if (problem(); as text) {
      <p class="problem" role="alert">{{ text }}</p>
    }
    @if (isLate()) {
      <p class="problem">{{ t.tooOld }}</p>
    }
    <ul class="ruled">
      @for (b of backups(); track b.name) {
        <li>
          <span>
            <strong>{{ b.at | when: 'dayTime' }}</strong>
            {{ reasons[b.reason] }}
          </span>
          <span class="dim">
            {{
              t.content({
                events: b.events,
                jobs: b.jobs,
                bytes: size(b.bytes),
                checkedAt: b.checkedAt | when: 'time',
              })
            }}
            @if (b.broken > 0) {
              <span class="tone-bad">{{ t.brokenLogs({ broken: b.broken }) }}</span>
            }
          </span>
        </li>
      } @empty {
        @if (state()) {
          <li class="dim">{{ t.none }}</li>
        }
      }
    </ul>
  `,
  styles: `
    @use 'media';

    header {
      display: flex;
      align-items: center;
      gap: 14px;
      margin: 26px 0 8px;
    }
    h2 {
      margin: 0;
    }
    li {
      display: grid;
      grid-template-columns: minmax(0, 1fr) minmax(0, 1.1fr);
      gap: 6px 20px;
      padding: 9px 0;
    }
    @include media.phone {
      li {
        grid-template-columns: 1fr;
      }
    }
  `,
})
export class BackupsPart {
  protected readonly t = T;

  private readonly api = inject(Api);
  private readonly crewId = inject(Store).selectSignal(sessionFeature.selectCrewId);
  protected readonly reasons = BACKUP_REASON_WORDS;
  protected readonly size = sizeWords;
  private readonly backup = loaded<string, BackupState | null>(
    () => 'backups',
    () => this.api.backups(),
    null,
  );
  protected readonly state = this.backup.value;
  protected readonly isMaking = signal(false);
  protected readonly isBusy = computed(() => this.isMaking() || (this.state()?.isUnderWay ?? false));
  protected readonly backups = computed(() => this.state()?.backups ?? []);
  protected readonly problem = computed(() => {
    const last = this.state()?.problem;
    return this.backup.problem() ?? (last ? T.failed({ reason: last }) : null);
  });
  protected readonly isLate = computed(() => {
    const [newest] = this.backups();
    return newest !== undefined && Date.now() - Date.parse(newest.at) > LATE_MS;
  });

  protected make(): void {
    this.isMaking.set(true);
    this.backup.change(this.api.backUp(this.crewId()).pipe(finalize(() => this.isMaking.set(false))));
  }
}
