import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import type { ShiftEnd, ShiftLeft } from '@voltrek/contracts';
import { SHIFT_PAGE as T } from '@words/screens/board';
import type { Observable } from 'rxjs';
import { Api } from '../shared/data/api';
import { HouseNames } from '../shared/data/house-names';
import { kitCopy } from '../shared/data/kit';
import { loaded } from '../shared/data/loaded';
import { problemText } from '../shared/data/problem';
import { sessionFeature } from '../shared/data/session';
import { savePdf } from '../shared/ui/save-pdf';
import { shiftDocument } from './shift-pdf';
import { shiftParts, signatures } from './shift-words';

/** The end of a shift: what is left now, given over by one and taken over by another; those before, as they stood. */
@Component({
  selector: 'vt-shift-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterLink],
  host: { class: 'page', tabindex: '0' },
  template: `
    <header>
      <h1>{{ t.title }}</h1>
      <span class="dim">{{ t.subtitle }}</span>
    </header>
    @if (problem() ?? left.problem() ?? earlier.problem(); as text) {
      <p class="problem" role="alert">{{ text }}</p>
    }
    @if (waiting(); as shift) {
      <section class="sign">
        @for (line of signed(shift); track line) {
          <p>{{ line }}</p>
        }
        @if (shift.givenBy === crewId()) {
          <p class="dim">{{ t.takeHint }}</p>
        } @else {
          <button type="button" class="key strong" [disabled]="isSending()" (click)="take(shift)">
            {{ t.take({ name: personName() }) }}
          </button>
        }
        <button type="button" class="key" (click)="save(shift)">{{ t.pdf }}</button>
      </section>
    }
    <div class="left">
      @for (part of parts(); track part.title) {
        <section>
          <h2>{{ part.title }}</h2>
          <ul class="ruled">
            @for (line of part.lines; track $index) {
              <li>
                @if (line.jobId) {
                  <a [routerLink]="['/job', line.jobId]">{{ line.text }}</a>
                } @else {
                  {{ line.text }}
                }
              </li>
            } @empty {
              <li class="dim">{{ part.none }}</li>
            }
          </ul>
        </section>
      }
    </div>
    @if (!waiting()) {
      <section class="sign">
        <label
          ><span>{{ t.note }}</span>
          <textarea #typed class="field" rows="3" maxlength="1000" (input)="note.set(typed.value)"></textarea>
        </label>
        <button type="button" class="key strong" [disabled]="isSending() || !left.isReady()" (click)="give()">
          {{ t.give }}
        </button>
      </section>
    }
    <h2>{{ t.earlier }}</h2>
    <ul class="ruled">
      @for (shift of past(); track shift.id) {
        <li class="past">
          <span>
            @for (line of signed(shift); track line) {
              <span>{{ line }}</span>
            }
            @if (shift.note) {
              <span class="dim">{{ shift.note }}</span>
            }
          </span>
          <button type="button" class="key" (click)="save(shift)">{{ t.pdf }}</button>
        </li>
      } @empty {
        <li class="dim">{{ t.none }}</li>
      }
    </ul>
  `,
  styles: `
    h2 {
      margin: 22px 0 6px;
      font-size: var(--text-m);
    }
    .left {
      display: grid;
      grid-template-columns: repeat(auto-fit, minmax(min(320px, 100%), 1fr));
      gap: 0 34px;
    }
    li {
      padding: 8px 0;
      line-height: 1.3;
    }
    li a {
      display: flex;
      align-items: center;
      min-height: 48px;
      color: inherit;
    }
    .sign {
      display: flex;
      flex-wrap: wrap;
      gap: 10px 18px;
      align-items: end;
      margin-top: 18px;
    }
    .sign p {
      margin: 0;
      flex-basis: 100%;
    }
    .sign label {
      flex: 1 1 320px;
    }
    .field {
      width: 100%;
      min-height: 84px;
      padding: 10px;
    }
    .past {
      display: grid;
      grid-template-columns: minmax(0, 1fr) auto;
      gap: 12px;
      align-items: center;
    }
    .past span span {
      display: block;
      margin: 0;
    }
  `,
})
export class ShiftPage {
  protected readonly t = T;

  private readonly api = inject(Api);
  private readonly store = inject(Store);
  protected readonly crewId = this.store.selectSignal(sessionFeature.selectCrewId);
  protected readonly left = loaded<string, ShiftLeft | null>(
    () => 'left',
    () => this.api.shiftLeft(),
    null,
  );
  protected readonly earlier = loaded<string, readonly ShiftEnd[]>(
    () => 'earlier',
    () => this.api.shifts(),
    [],
  );
  protected readonly note = signal('');
  protected readonly problem = signal<string | null>(null);
  protected readonly isSending = signal(false);
  /** The id of the next one: sent again it is the same shift. */
  private nextId = crypto.randomUUID();

  private readonly names = inject(HouseNames);
  protected readonly personName = computed(() => this.names.person(this.crewId()));
  /** The shift that was given over and not taken yet. */
  protected readonly waiting = computed(() => {
    const [newest] = this.earlier.value();
    return newest?.takenBy === null ? newest : null;
  });
  protected readonly past = computed(() => this.earlier.value().filter((shift) => shift !== this.waiting()));
  protected readonly parts = computed(() => {
    const left = this.waiting()?.left ?? this.left.value();
    return left ? shiftParts(left, this.names) : [];
  });

  constructor() {
    this.store.dispatch(kitCopy.requested());
  }

  protected signed(shift: ShiftEnd): string[] {
    return signatures(shift, this.names);
  }

  protected give(): void {
    const { nextId: id } = this;
    this.send(this.api.giveShift({ id, by: this.crewId(), note: this.note().trim() }));
  }

  protected take({ id }: ShiftEnd): void {
    this.send(this.api.takeShift(id, this.crewId()));
  }

  private send(request: Observable<ShiftEnd>): void {
    this.isSending.set(true);
    this.problem.set(null);
    request.subscribe({
      next: () => {
        this.nextId = crypto.randomUUID();
        this.note.set('');
        this.isSending.set(false);
        this.earlier.reload();
        this.left.reload();
      },
      error: (error: unknown) => {
        this.isSending.set(false);
        this.problem.set(problemText(error));
      },
    });
  }

  protected save(shift: ShiftEnd): void {
    void savePdf(shiftDocument(shift, this.names), `shift-${shift.givenAt.slice(0, 10)}.pdf`);
  }
}
