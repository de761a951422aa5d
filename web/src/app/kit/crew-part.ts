import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { CREW_PART as T } from '@words/screens/kit';
import { CREW_ROLES, type CrewMember } from '@voltrek/contracts';
import { Store } from '@ngrx/store';
import { crewCopy } from '../shared/data/crew';
import { ROLE_WORDS } from '@words/crew-words';
import { Choices } from '../shared/ui/choices';

/** The crew: added, renamed, retired. Nobody is deleted, since logs name them. */
@Component({
  selector: 'vt-crew-part',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Choices],
  template: `
    <section aria-labelledby="crew-title">
      <h2 id="crew-title">{{ t.crew }}</h2>
      @if (problem(); as text) {
        <p class="problem" role="alert">{{ text }}</p>
      }
      <ul class="ruled">
        @for (member of crew(); track member.id) {
          <li>
            <strong [class.dim]="member.retired">{{ member.name }}</strong>
            <span class="keys" role="radiogroup" [attr.aria-label]="t.roleOf + member.name">
              @for (role of roles; track role) {
                <button
                  type="button"
                  class="key"
                  role="radio"
                  [attr.aria-checked]="member.role === role"
                  (click)="change(member, { role })"
                >
                  {{ words[role] }}
                </button>
              }
            </span>
            <button type="button" class="key" (click)="change(member, { retired: !member.retired })">
              {{ member.retired ? t.returns : t.leaves }}
            </button>
          </li>
        }
      </ul>
      <form class="new" (submit)="$event.preventDefault(); add()">
        <label
          ><span>{{ t.name }}</span
          ><input class="field" maxlength="40" [value]="name()" #typed (input)="name.set(typed.value)"
        /></label>
        <button type="submit" class="key" [disabled]="name().trim() === ''">{{ t.addToTheCrew }}</button>
      </form>
    </section>
  `,
  styles: `
    @use 'media';

    li {
      display: grid;
      grid-template-columns: 180px 1fr auto;
      align-items: center;
      gap: 16px;
      padding: 8px 0;
    }
    .new {
      display: flex;
      align-items: end;
      gap: 10px;
      margin-top: 10px;
    }
    @include media.phone {
      li {
        grid-template-columns: 1fr;
      }
    }
  `,
})
export class CrewPart {
  protected readonly t = T;

  private readonly store = inject(Store);
  protected readonly crew = this.store.selectSignal(crewCopy.selectCopy);
  protected readonly problem = this.store.selectSignal(crewCopy.selectProblem);
  protected readonly roles = CREW_ROLES;
  protected readonly words = ROLE_WORDS;
  protected readonly name = signal('');

  protected change(member: CrewMember, change: Partial<CrewMember>): void {
    this.store.dispatch(crewCopy.changeSent({ ...member, ...change }));
  }

  protected add(): void {
    const name = this.name().trim();
    this.store.dispatch(crewCopy.changeSent({ id: null, name, role: 'technician', retired: false }));
    this.name.set('');
  }
}
