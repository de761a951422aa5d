import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { NgbActiveModal } from '@ng-bootstrap/ng-bootstrap/modal';
import { Store } from '@ngrx/store';
import { atWork, crewCopy } from '../shared/data/crew';
import { SessionActions } from '../shared/data/session';
import { WHO_WORKS as T } from '@words/screens/shell';

/** Asked once of a device that nobody has said whose hands it is in: what is logged bears a name. */
@Component({
  selector: 'vt-who-works',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="sheet">
      <h1 id="who-title">{{ t.title }}</h1>
      <p class="dim">
        {{ t.text }}
      </p>
      <div class="names">
        @for (member of crew(); track member.id) {
          <button type="button" class="key" (click)="choose(member.id)">{{ member.name }}</button>
        }
      </div>
    </div>
  `,
  styles: `
    .names {
      display: grid;
      grid-template-columns: repeat(auto-fill, minmax(160px, 1fr));
      gap: 10px;
    }
    .key {
      min-height: 64px;
      font-size: var(--text-l);
    }
  `,
})
export class WhoWorks {
  protected readonly t = T;

  private readonly store = inject(Store);
  private readonly modal = inject(NgbActiveModal);
  private readonly everybody = this.store.selectSignal(crewCopy.selectCopy);
  protected readonly crew = computed(() => atWork(this.everybody()));

  protected choose(crewId: string): void {
    this.store.dispatch(SessionActions.crewChosen({ crewId }));
    this.modal.close();
  }
}
