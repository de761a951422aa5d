import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { NOTHING_CONNECTED } from '@voltrek/core';
import { Store } from '@ngrx/store';
import { Loop } from '../job/loop/loop';
import { layoutLoop } from '../job/loop/loop-layout';
import { AtlasActions, atlasFeature } from '../shared/state/atlas';
import { CLASS_WORDS, POINT_KIND_WORDS } from '../shared/words/words';
import { searchMachines } from './search-machines';

/** Machines, their points and how to reach them. */
@Component({
  selector: 'vt-atlas-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Loop],
  template: `
    <div class="list">
      <header>
        <h1>Atlas</h1>
        <input
          type="search"
          class="field"
          aria-label="Search machines"
          placeholder="maker, model, class, place of the block"
          [value]="typed()"
          #typedInput
          (input)="typed.set(typedInput.value)"
        />
      </header>
      @if (problem(); as text) {
        <p class="problem" role="alert">{{ text }}</p>
      }
      <ul class="ruled">
        @for (m of found(); track m.id) {
          <li>
            <button type="button" [attr.aria-pressed]="m.id === chosen()?.id" (click)="chosenId.set(m.id)">
              <strong>{{ m.maker }} {{ m.model }}</strong>
              <span class="dim"
                >{{ classWords[m.machineClass] }}, {{ m.systemVolts }} V, block {{ m.blocks[0]?.place }}</span
              >
            </button>
          </li>
        } @empty {
          <li class="dim none">No machine matches.</li>
        }
      </ul>
    </div>
    @if (chosen(); as m) {
      <section class="detail" aria-labelledby="machine-name">
        <h2 id="machine-name">{{ m.maker }} {{ m.model }}</h2>
        <dl>
          @for (b of m.blocks; track $index) {
            <dt>block {{ m.blocks.length > 1 ? $index + 1 : '' }}</dt>
            <dd>
              {{ b.rating.chemistry }} {{ b.rating.capacityAh }} Ah, {{ b.rating.ccaAmps }} A
              {{ b.rating.ccaStandard }}, {{ b.place }}
            </dd>
          }
          <dt>engine</dt>
          <dd>
            {{
              m.engine
                ? m.engine.fuel + ' ' + m.engine.displacementL + ' L, ' + m.engine.cylinders + ' cyl'
                : 'wakes, does not crank'
            }}
          </dd>
        </dl>
        <ol class="ruled points">
          @for (p of m.points; track p.id; let i = $index) {
            <li>
              <button type="button" [attr.aria-pressed]="p.id === pin()" (click)="pin.set(p.id)">
                <strong>{{ i + 1 }}. {{ p.label }}</strong> <span class="dim">{{ kindWords[p.kind] }}</span>
                <span class="steps">{{ p.steps.join(' ') }}</span>
              </button>
            </li>
          }
        </ol>
        @for (c of m.cautions; track $index) {
          <p class="tone-watch">
            <strong>{{ c }}</strong>
          </p>
        }
        @if (m.resets.length) {
          <p class="dim">Set again after power loss: {{ m.resets.join(', ') }}.</p>
        }
      </section>
      <aside class="drawing" aria-label="Drawing">
        <vt-loop [drawing]="drawing()!" [chosenPin]="pin()" (pinChosen)="pin.set($event)" />
      </aside>
    }
  `,
  styles: `
    :host {
      flex: 1;
      min-height: 0;
      display: grid;
      grid-template-columns: 380px minmax(0, 1fr) 420px;
    }
    .list,
    .detail {
      min-height: 0;
      overflow: auto;
      padding: 18px 20px;
    }
    .list header {
      display: grid;
      gap: 10px;
      margin-bottom: 10px;
    }
    .detail {
      display: flex;
      flex-direction: column;
      gap: 14px;
      border-left: 1px solid var(--line);
    }
    .drawing {
      padding: 14px;
      min-height: 0;
      background: var(--sheet);
      border-left: 1px solid var(--line);
    }
    .drawing vt-loop {
      height: 100%;
    }
    button {
      display: block;
      width: 100%;
      min-height: 56px;
      padding: 6px 10px;
      border: 0;
      background: none;
      text-align: left;
    }
    button[aria-pressed='true'] {
      background: var(--sheet);
      box-shadow: inset 8px 0 0 var(--lamp);
      padding-left: 18px;
    }
    .list strong,
    .list span,
    .steps {
      display: block;
    }
    .list span {
      font-size: 15px;
    }
    h2 {
      font-size: 26px;
    }
    dl {
      display: grid;
      grid-template-columns: 80px 1fr;
      gap: 4px 12px;
    }
    dt {
      font-weight: 500;
      color: var(--dim);
    }
    dd {
      margin: 0;
    }
    .none {
      padding: 14px 0;
    }
    @media (max-width: 1000px) {
      :host {
        display: block;
        overflow: auto;
      }
      .list {
        max-height: 46vh;
      }
      .detail {
        border: 0;
      }
      .drawing {
        height: 70vh;
      }
    }
  `,
})
export class AtlasPage {
  private readonly store = inject(Store);
  private readonly machines = this.store.selectSignal(atlasFeature.selectAll);

  protected readonly problem = this.store.selectSignal(atlasFeature.selectProblem);
  protected readonly classWords = CLASS_WORDS;
  protected readonly kindWords = POINT_KIND_WORDS;
  protected readonly typed = signal('');
  protected readonly chosenId = signal<string | null>(null);
  protected readonly pin = signal<string | null>(null);
  protected readonly found = computed(() => searchMachines(this.machines(), this.typed()));
  protected readonly chosen = computed(
    () => this.found().find((m) => m.id === this.chosenId()) ?? this.found()[0] ?? null,
  );
  protected readonly drawing = computed(() => {
    const machine = this.chosen();
    return (
      machine &&
      layoutLoop({
        machine,
        donor: null,
        scene: null,
        hookup: NOTHING_CONNECTED,
        step: null,
        showPins: true,
        machineName: machine.model,
      })
    );
  });

  constructor() {
    this.store.dispatch(AtlasActions.opened());
  }
}
