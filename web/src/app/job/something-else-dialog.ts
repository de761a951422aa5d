import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { type ClampId, isRedClamp, isSourceClamp } from '@voltrek/core/circuit';
import { hazardLine } from '@words/hazard-words';
import {
  act,
  actsBetween,
  type Circumstance,
  CIRCUMSTANCES,
  clampsInHand,
  hazardsOf,
  type HookupState,
  SPARE_POSTS,
  isInForce,
  WRONG_METALS,
  type WrongMetal,
} from '@voltrek/core/hookup';
import { isPositiveEarth } from '@voltrek/core/machine';
import { entryOf } from '@voltrek/core/job';
import type { Machine } from '@voltrek/core/machine';
import { hasSwitch } from '@voltrek/core/plan';
import { NgbActiveModal } from '@ng-bootstrap/ng-bootstrap/modal';
import { Store } from '@ngrx/store';
import { CIRCUMSTANCE_WORDS, METAL_WORDS, POINT_KIND_WORDS } from '@words/words';
import { selectRescue, selectWork } from '../shared/job/job-selectors';
import { Reporter } from '../shared/job/reporter';
import { layoutCircuit } from '../shared/drawing/circuit-layout';
import { CircuitView } from '../shared/drawing/circuit-view';
import { Choices } from '../shared/ui/choices';
import { sideWord } from './step-words';
import { SOMETHING_ELSE_DIALOG as T } from '@words/screens/job';

const FREE = '';
/** Places that a jump clamp can go on. */
const CLAMPABLE = [
  'red-post',
  'battery-positive',
  'starter-stud',
  'battery-negative',
  'ground-point',
] as const;

interface Place {
  readonly id: string;
  readonly name: string;
}

/** "I did something else": says where every clamp really is, so that the next steps are planned from there. */
@Component({
  selector: 'vt-something-else-dialog',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Choices, CircuitView],
  template: `
    <form class="sheet" (submit)="$event.preventDefault(); report()">
      <h1 id="something-else-title">{{ t.title }}</h1>
      <div role="status">
        @for (line of warned(); track line) {
          <p class="caution"><span aria-hidden="true">!</span> {{ line }}</p>
        }
      </div>
      <div class="where">
        <div>
          <div class="keys" role="radiogroup" [attr.aria-label]="t.whichClamp">
            @for (clamp of clamps(); track clamp) {
              <button
                type="button"
                class="key clamp"
                role="radio"
                [attr.aria-checked]="clamp === chosen()"
                (click)="picked.set(clamp)"
              >
                <strong>{{ nameOf(clamp) }}</strong> <span>{{ placeNow(clamp) }}</span>
              </button>
            }
          </div>
          @if (chosen(); as clamp) {
            <div class="keys" role="radiogroup" [attr.aria-label]="t.itIsOn({ clamp: nameOf(clamp) })">
              <button
                type="button"
                class="key"
                role="radio"
                [attr.aria-checked]="now()[clamp] === free"
                (click)="move(clamp, free)"
              >
                {{ t.free }}
              </button>
              @for (p of placesFor(clamp); track p.id) {
                <button
                  type="button"
                  class="key"
                  role="radio"
                  [attr.aria-checked]="now()[clamp] === p.id"
                  (click)="move(clamp, p.id)"
                >
                  {{ p.name }}
                </button>
              }
            </div>
            @if (now()[clamp] !== free) {
              <label class="metal">
                <span>{{ t.onWhatMetal }}</span>
                <select class="field" #metal (change)="put(clamp, metal.value)">
                  <option value="" [selected]="ontoNow()[clamp] === undefined">
                    {{ t.metalAsMeant }}
                  </option>
                  @for (m of metals; track m) {
                    <option [value]="m" [selected]="ontoNow()[clamp] === m">{{ metalWords[m] }}</option>
                  }
                </select>
              </label>
            }
          }
        </div>
        <vt-circuit [drawing]="drawing()" [chosenPin]="chosenPin()" (pinChosen)="move(chosen()!, $event)" />
      </div>
      <div class="keys">
        @for (s of switches(); track s.name) {
          <button type="button" class="key" [attr.aria-pressed]="s.on" (click)="s.flip()">
            {{ s.name }}
          </button>
        }
      </div>
      <details>
        <summary>{{ t.whatElseIsSo }}</summary>
        <div class="keys">
          @for (c of circumstances(); track c) {
            <button
              type="button"
              class="key"
              [attr.aria-pressed]="standsNow(c)"
              (click)="note(c, !standsNow(c))"
            >
              {{ circumstanceWords[c] }}
            </button>
          }
        </div>
      </details>
      <div class="keys">
        <button type="submit" class="key strong" [disabled]="changes().length === 0">
          {{ t.save }}
        </button>
        <button type="button" class="key" (click)="modal.dismiss()">{{ t.asPlanned }}</button>
      </div>
    </form>
  `,
  styles: `
    @use 'media';

    .sheet {
      gap: 14px;
    }
    .where {
      display: grid;
      grid-template-columns: minmax(0, 1fr) minmax(0, 400px);
      gap: 18px;
    }
    .where > div {
      display: grid;
      gap: 14px;
      align-content: start;
    }
    .clamp {
      display: grid;
      width: 100%;
      padding: 6px 12px;
      text-align: left;
    }
    vt-circuit {
      height: 430px;
    }
    @include media.phone {
      .where {
        grid-template-columns: 1fr;
      }
      vt-circuit {
        height: 360px;
      }
    }
    summary {
      min-height: 48px;
      padding: 12px 0;
      font-size: var(--text-s);
      cursor: pointer;
    }
  `,
})
export class SomethingElseDialog {
  protected readonly t = T;

  protected readonly modal = inject(NgbActiveModal);
  private readonly reporter = inject(Reporter);
  private readonly work = inject(Store).selectSignal(selectWork);
  private readonly rescue = inject(Store).selectSignal(selectRescue);

  protected readonly free = FREE;
  private readonly moved = signal<Partial<Record<ClampId, string>>>({});
  private readonly flipped = signal<Partial<Pick<HookupState, 'packOn' | 'pluggedIn' | 'donorRunning'>>>({});
  private readonly noted = signal<Partial<Record<Circumstance, boolean>>>({});
  private readonly metal = signal<Partial<Record<ClampId, WrongMetal | null>>>({});
  private readonly hookup = computed(() => this.work()!.job.hookup);

  /** Facts that the atlas has of the machine need not be noted. */
  protected readonly circumstances = computed(() =>
    CIRCUMSTANCES.filter((c) => c !== 'positive-earth' || !isPositiveEarth(this.work()!.machine)),
  );
  protected readonly circumstanceWords = CIRCUMSTANCE_WORDS;
  protected readonly metals = WRONG_METALS;
  protected readonly metalWords = METAL_WORDS;

  protected readonly clamps = computed(() => {
    const rescue = this.rescue();
    return rescue ? clampsInHand(rescue.option) : [];
  });
  protected readonly now = computed((): Partial<Record<ClampId, string>> => {
    const { clamps } = this.hookup();
    return Object.fromEntries(this.clamps().map((c) => [c, this.moved()[c] ?? clamps[c] ?? FREE]));
  });
  protected readonly switches = computed(() => {
    const rescue = this.rescue();
    if (!rescue) return [];
    const flip = (key: 'packOn' | 'pluggedIn' | 'donorRunning', name: string) => {
      const on = this.flipped()[key] ?? this.hookup()[key];
      return { name, on, flip: () => this.flipped.update((f) => ({ ...f, [key]: !on })) };
    };
    const { sourceKind } = rescue.option;
    return [
      ...(sourceKind === 'donor' ? [flip('donorRunning', T.donorRuns)] : []),
      ...(sourceKind === 'mains-charger' ? [flip('pluggedIn', T.pluggedIn)] : []),
      ...(hasSwitch(rescue.option) ? [flip('packOn', T.switchedOn)] : []),
    ];
  });
  /** How hands say that things stand. */
  private readonly reported = computed((): HookupState => {
    const hookup = this.hookup();
    const now = this.now();
    return {
      ...hookup,
      ...this.flipped(),
      clamps: Object.fromEntries(
        Object.entries(hookup.clamps).map(([clamp, at]) => {
          const place = now[clamp as ClampId];
          return [clamp, place === undefined ? at : place || null];
        }),
      ) as HookupState['clamps'],
      onto: this.ontoNow(),
      circumstances: CIRCUMSTANCES.filter((what) => this.standsNow(what)),
    };
  });
  /** The acts between the log and the clamps as they are. */
  protected readonly changes = computed(() => actsBetween(this.hookup(), this.reported()));

  /** The metal under each clamp that is on. */
  protected readonly ontoNow = computed((): Partial<Record<ClampId, WrongMetal>> => {
    const { onto = {} } = this.hookup();
    return Object.fromEntries(
      this.clamps().flatMap((clamp) => {
        const metal = this.metal()[clamp];
        const now = metal === undefined ? onto[clamp] : metal;
        return now && this.now()[clamp] !== FREE ? [[clamp, now]] : [];
      }),
    );
  });
  /** The worst that each of these changes brings, in the state that the ones before it leave. */
  protected readonly warned = computed(() => {
    const rescue = this.rescue();
    const work = this.work();
    if (!rescue || !work) return [];
    let state = this.hookup();
    const lines = this.changes().flatMap((action) => {
      const [worst] = hazardsOf(rescue.scene, state, action, work.rules);
      state = act(state, action);
      return worst && worst.severity !== 'note' ? [hazardLine(worst)] : [];
    });
    return [...new Set(lines)];
  });

  /** The clamp that is shown: the first that is on, until another is picked. */
  protected readonly picked = signal<ClampId | null>(null);
  protected readonly chosen = computed(
    () =>
      this.picked() ??
      this.clamps().find((c) => this.hookup().clamps[c] !== null) ??
      this.clamps()[0] ??
      null,
  );
  protected readonly chosenPin = computed(() => {
    const chosen = this.chosen();
    return (chosen && this.now()[chosen]) ?? null;
  });
  /** The clamps as they are reported, with a number at each place of the reported clamp. */
  protected readonly drawing = computed(() => {
    const { machine, donorMachine } = this.work()!;
    const chosen = this.chosen();
    return layoutCircuit({
      ...{ machine, donor: donorMachine, machineName: T.casualty },
      scene: this.rescue()?.scene ?? null,
      hookup: this.changes().reduce(act, this.hookup()),
      ...{ step: null, isCranking: false, showPins: false },
      pinsFor: chosen && {
        isDonor: isSourceClamp(chosen),
        pointIds: this.placesFor(chosen).map(({ id }) => id),
      },
    });
  });

  protected placeNow(clamp: ClampId): string {
    const at = this.now()[clamp];
    return this.placesFor(clamp).find(({ id }) => id === at)?.name ?? T.free;
  }

  protected standsNow(what: Circumstance): boolean {
    return this.noted()[what] ?? isInForce(this.hookup(), what);
  }

  protected note(what: Circumstance, on: boolean): void {
    this.noted.update((n) => ({ ...n, [what]: on }));
  }

  protected put(clamp: ClampId, metal: string): void {
    const known = WRONG_METALS.find((m) => m === metal) ?? null;
    this.metal.update((m) => ({ ...m, [clamp]: known }));
  }

  protected nameOf(clamp: ClampId): string {
    return T.end({ colour: isRedClamp(clamp) ? T.red : T.black, side: sideWord(clamp, this.rescue()) });
  }

  protected placesFor(clamp: ClampId): Place[] {
    if (!isSourceClamp(clamp)) return placesOf(this.work()!.machine);
    if (this.rescue()?.option.sourceKind === 'spare-batteries')
      return [
        { id: SPARE_POSTS.plus, name: T.spareBattery },
        { id: SPARE_POSTS.minus, name: T.spareMinus },
      ];
    const donor = this.work()!.donorMachine;
    return donor ? placesOf(donor) : [];
  }

  protected move(clamp: ClampId, pointId: string): void {
    this.moved.update((m) => ({ ...m, [clamp]: pointId }));
  }

  protected report(): void {
    for (const action of this.changes()) this.reporter.report(...entryOf(action));
    this.modal.close();
  }
}

function placesOf(machine: Machine): Place[] {
  return machine.points
    .filter((p) => CLAMPABLE.some((kind) => kind === p.kind))
    .map((p) => ({ id: p.id, name: `${POINT_KIND_WORDS[p.kind]}: ${p.label}` }));
}
