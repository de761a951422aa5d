import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { BoardCall, CallChange, NewCallChange } from '@voltrek/contracts';
import { hasEnded } from '@voltrek/contracts/wire';
import { NgbActiveModal } from '@ng-bootstrap/ng-bootstrap/modal';
import { Store } from '@ngrx/store';
import { Api } from '../shared/data/api';
import { boardCopy } from '../shared/data/board';
import { kitCopy } from '../shared/data/kit';
import { problemText } from '../shared/data/problem';
import { atWork, crewCopy } from '../shared/data/crew';
import { sessionFeature } from '../shared/data/session';
import { CALL_CHANGE_WORDS } from '@words/call-words';
import { vehicleName } from '@words/figures';
import { HouseNames } from '../shared/data/house-names';
import { When } from '../shared/ui/when';
import { CALL_DIALOG as T } from '@words/screens/board';

/** One call: who called, whose vehicle, who is on it, what became of it; taken, passed on, given back, called off. */
@Component({
  selector: 'vt-call-dialog',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterLink, When],
  template: `
    @if (call(); as c) {
      <div class="sheet">
        <h1 id="call-title">{{ t.call({ number: c.number, title: c.title }) }}</h1>
        <dl>
          <dt>{{ t.caller }}</dt>
          <dd>
            @if (c.caller?.name; as name) {
              {{ name }}{{ c.caller!.phone ? ', ' + c.caller!.phone : '' }}
            } @else {
              <span class="dim">{{ t.notKnown }}</span>
            }
          </dd>
          <dt>{{ t.vehicle }}</dt>
          <dd>
            <a [routerLink]="['/vehicle', c.vehicleId]" (click)="modal.dismiss()">{{
              nameOfVehicle(c.vehicle) ?? t.noPlateKnown
            }}</a>
          </dd>
          <dt>{{ t.place }}</dt>
          <dd>{{ c.placeName || t.nothing }}</dd>
          <dt>{{ t.said }}</dt>
          <dd>{{ c.said || t.nothing }}</dd>
          @if (c.promisedAt) {
            <dt>{{ t.promised }}</dt>
            <dd>{{ c.promisedAt | when: 'time' }}</dd>
          }
          <dt>{{ t.with }}</dt>
          <dd>{{ withWhom(c) }}</dd>
        </dl>
        @if (changes().length > 0) {
          <ul class="ruled">
            @for (change of changes(); track $index) {
              <li>
                <span class="dim">{{ change.at | when: 'time' }}</span>
                {{ words[change.kind] }}{{ change.vanId ? ', ' + names.van(change.vanId) : ''
                }}{{ change.technicianId ? ', ' + names.person(change.technicianId) : ''
                }}{{ change.reason ? ': ' + change.reason : '' }}
              </li>
            }
          </ul>
        }
        @if (!hasEnded(c)) {
          <div class="pair">
            <label
              ><span>{{ t.van }}</span>
              <select class="field" #van (change)="vanId.set(van.value)">
                @for (v of vans(); track v.id) {
                  <option [value]="v.id" [selected]="v.id === vanId()">{{ v.name }}</option>
                }
              </select></label
            >
            <label
              ><span>{{ t.technician }}</span>
              <select class="field" #who (change)="technicianId.set(who.value)">
                @for (m of crew(); track m.id) {
                  <option [value]="m.id" [selected]="m.id === technicianId()">{{ m.name }}</option>
                }
              </select></label
            >
          </div>
          <label
            ><span>{{ t.reasonLabel }}</span
            ><input class="field" maxlength="200" [value]="reason()" #why (input)="reason.set(why.value)"
          /></label>
        }
        @if (problem(); as text) {
          <p class="problem" role="alert">{{ text }}</p>
        }
        <div class="keys">
          @if (c.state === 'waiting') {
            <button type="button" class="key strong" (click)="put('taken')">{{ t.takeIt }}</button>
          }
          @if (c.state === 'taken') {
            <button type="button" class="key" [disabled]="!hasReason()" (click)="put('passed-on')">
              {{ t.passItOn }}
            </button>
          }
          @if (c.state === 'taken' && !c.job) {
            <button type="button" class="key" [disabled]="!hasReason()" (click)="put('given-back')">
              {{ t.giveItBack }}
            </button>
          }
          @if (!hasEnded(c) && !c.job) {
            <button type="button" class="key" [disabled]="!hasReason()" (click)="put('called-off')">
              {{ t.calledOff }}
            </button>
          }
          @if (c.state === 'called-off') {
            <button type="button" class="key" (click)="put('reopened')">{{ t.itWaitsAgain }}</button>
          }
          <button type="button" class="key" (click)="modal.dismiss()">{{ t.close }}</button>
        </div>
      </div>
    }
  `,
  styles: `
    .sheet {
      gap: 12px;
    }
    dl {
      display: grid;
      grid-template-columns: 90px 1fr;
      gap: 4px 14px;
    }
    dt {
      color: var(--dim);
      font-weight: 600;
    }
    dd {
      margin: 0;
    }
    dd a {
      color: inherit;
    }
    .pair {
      display: grid;
      grid-template-columns: 1fr 1fr;
      gap: 14px;
    }
  `,
})
export class CallDialog {
  protected readonly t = T;
  protected readonly nameOfVehicle = vehicleName;
  protected readonly hasEnded = hasEnded;
  protected readonly names = inject(HouseNames);

  protected readonly modal = inject(NgbActiveModal);
  private readonly api = inject(Api);
  private readonly store = inject(Store);
  private readonly crewId = this.store.selectSignal(sessionFeature.selectCrewId);
  private readonly everybody = this.store.selectSignal(crewCopy.selectCopy);
  private readonly allVans = this.store.selectSignal(kitCopy.selectCopy);
  protected readonly crew = computed(() => atWork(this.everybody()));
  protected readonly vans = computed(() => this.allVans().filter((v) => !v.retired));
  protected readonly call = signal<BoardCall | null>(null);
  protected readonly changes = signal<readonly CallChange[]>([]);
  protected readonly vanId = signal('');
  protected readonly technicianId = signal('');
  protected readonly reason = signal('');
  protected readonly problem = signal<string | null>(null);
  protected readonly hasReason = computed(() => this.reason().trim().length >= 3);
  protected readonly words = CALL_CHANGE_WORDS;

  /** @param vanId van that the call is taken with unless another is chosen */
  open(call: BoardCall, vanId: string): void {
    this.call.set(call);
    this.vanId.set(call.vanId ?? vanId);
    this.technicianId.set(call.technicianId ?? this.crewId());
    this.api.callChanges(call.id).subscribe({
      next: (changes) => this.changes.set(changes),
      error: (error: unknown) => this.problem.set(problemText(error)),
    });
  }

  protected put(kind: NewCallChange['kind']): void {
    const isAssigned = kind === 'taken' || kind === 'passed-on';
    const change: NewCallChange = {
      kind,
      by: this.crewId(),
      vanId: isAssigned ? this.vanId() || null : null,
      technicianId: isAssigned ? this.technicianId() || null : null,
      reason: this.reason().trim(),
    };
    this.api.changeCall(this.call()!.id, change).subscribe({
      next: (calls) => {
        this.store.dispatch(boardCopy.changed(calls));
        this.modal.close();
      },
      error: (error: unknown) => this.problem.set(problemText(error)),
    });
  }

  protected withWhom({ vanId, technicianId }: BoardCall): string {
    if (!vanId && !technicianId) return T.nobodyYet;
    return [vanId && this.names.van(vanId), technicianId && this.names.person(technicianId)]
      .filter(Boolean)
      .join(', ');
  }
}
