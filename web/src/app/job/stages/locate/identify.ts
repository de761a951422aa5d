import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  linkedSignal,
  output,
  signal,
} from '@angular/core';
import { CHEMISTRIES } from '@voltrek/core/battery';
import { MACHINE_CLASSES, type MachineClass, TERMINAL_LAYOUTS } from '@voltrek/core/machine';
import {
  type Clue,
  cluesFor,
  machineFrom,
  type MachineFinding,
  rankPlaces,
  typicalOf,
} from '@voltrek/core/template';
import type { MachineSummary } from '@voltrek/contracts';
import { Store } from '@ngrx/store';
import { Finder, NO_MACHINES, TYPING_PAUSE_MS } from '../../../shared/data/finder';
import { loaded } from '../../../shared/data/loaded';
import { problemText } from '../../../shared/data/problem';
import { Errands } from '../../../shared/sync/errands';
import { SendPhoto } from '../../../shared/sync/send-photo';
import { sessionFeature } from '../../../shared/data/session';
import { typedFigure } from '../../../shared/ui/typed-figure';
import { LIKELY_PLACE_WORDS, CLUE_WORDS, LAYOUT_WORDS } from '@words/atlas-words';
import { percent } from '@words/figures';
import { summaryInWords, templateWords } from '@words/template-words';
import { CHEMISTRY_WORDS } from '@words/plan-words';
import { CLASS_WORDS } from '@words/words';
import { entryFaults, idFrom } from '../../../shared/entry/entry-fields';
import { NextAction } from '../../next-action';
import type { Work } from '../../../shared/job/job-selectors';
import { Reporter } from '../../../shared/job/reporter';
import { LocateHead, type LocatePart } from './locate-head';
import { IDENTIFY as T } from '@words/screens/job-stages-locate';

const SUGGESTIONS = 5;

/** Identifies the machine: one that the atlas knows, or a new one, found step by step and kept for the next crew. */
@Component({
  selector: 'vt-identify',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [LocateHead, NextAction],
  template: `
    <section class="stage" aria-labelledby="stage-title">
      <vt-locate-head [work]="work()" part="identify" (partChosen)="partChosen.emit($event)" />
      <label>
        <span>{{ t.atlasTitle }}</span>
        <input
          class="field"
          type="search"
          maxlength="120"
          [placeholder]="t.searchHint"
          [value]="typed()"
          #typedInput
          (input)="typed.set(typedInput.value)"
        />
      </label>
      @if (typed().trim()) {
        <ul class="ruled">
          @for (m of suggested(); track m.id) {
            <li>
              <button type="button" class="row" (click)="choose(m.id)">
                <strong>{{ m.maker }} {{ m.model }}</strong>
                <span class="dim">{{
                  t.battery({ machineClass: classWords[m.machineClass], places: m.places })
                }}</span>
              </button>
            </li>
          } @empty {
            <li class="dim">{{ t.notInAtlas }}</li>
          }
        </ul>
      }
      <fieldset>
        <legend>{{ t.classTitle }}</legend>
        <div class="keys">
          @for (c of classes; track c) {
            <button
              type="button"
              class="key"
              [attr.aria-pressed]="c === machineClass()"
              (click)="machineClass.set(c)"
            >
              {{ classWords[c] }}
            </button>
          }
        </div>
      </fieldset>
      <fieldset>
        <legend>{{ t.whatDoYouSee }}</legend>
        <div class="keys">
          @for (clue of clues(); track clue) {
            <button
              type="button"
              class="key"
              [attr.aria-pressed]="seen().includes(clue)"
              (click)="toggle(clue)"
            >
              {{ clueWords[clue] }}
            </button>
          }
        </div>
      </fieldset>
      <fieldset>
        <legend>{{ t.placesTitle }}</legend>
        <ul class="ruled">
          @for (r of places(); track r.place.id) {
            <li>
              <button
                type="button"
                class="row"
                [attr.aria-pressed]="r.place.id === placeId()"
                (click)="placeId.set(r.place.id)"
              >
                <strong>{{ placeWords[r.place.id].name }}</strong>
                <span class="bar" aria-hidden="true"><span [style.width.%]="r.share * 100"></span></span>
                <span class="share">{{ percent(r.share) }}</span>
                <span class="dim">{{ placeWords[r.place.id].first }} {{ placeWords[r.place.id].then }}</span>
              </button>
            </li>
          }
        </ul>
      </fieldset>
      @if (placeId()) {
        <fieldset>
          <legend>{{ t.entryTitle }}</legend>
          <div class="fields">
            <label
              ><span>{{ t.maker }}</span>
              <input
                class="field"
                maxlength="60"
                [value]="maker()"
                #makerInput
                (input)="maker.set(makerInput.value)"
              />
            </label>
            <label
              ><span>{{ t.model }}</span>
              <input
                class="field"
                maxlength="80"
                [value]="model()"
                #modelInput
                (input)="model.set(modelInput.value)"
              />
            </label>
            <label
              ><span>{{ t.chemistry }}</span>
              <select
                class="field"
                #chemistryInput
                (change)="chemistry.set(asChemistry(chemistryInput.value))"
              >
                @for (c of chemistries; track c) {
                  <option [value]="c" [selected]="c === chemistry()">{{ chemistryWords[c] }}</option>
                }
              </select>
            </label>
            <label
              ><span>{{ chemistry() === 'capacitor' ? t.bankAh : t.capacityAh }}</span>
              <input
                class="field"
                inputmode="decimal"
                [value]="capacity()"
                #ahInput
                (input)="capacity.set(ahInput.value)"
              />
            </label>
            <label
              ><span>{{ t.ccaAmps }}</span>
              <input
                class="field"
                inputmode="numeric"
                [value]="cca()"
                #ccaInput
                (input)="cca.set(ccaInput.value)"
              />
            </label>
            @if (typical().engine) {
              <label
                ><span>{{ t.engineL }}</span>
                <input
                  class="field"
                  inputmode="decimal"
                  [value]="litres()"
                  #litresInput
                  (input)="litres.set(litresInput.value)"
                />
              </label>
            }
          </div>
          <div class="keys">
            @for (v of [12, 24]; track v) {
              <button
                type="button"
                class="key"
                [attr.aria-pressed]="v === systemVolts()"
                (click)="systemVolts.set(v === 24 ? 24 : 12)"
              >
                {{ v }} V
              </button>
            }
            @for (l of layouts; track l) {
              <button type="button" class="key" [attr.aria-pressed]="l === layout()" (click)="layout.set(l)">
                {{ layoutWords[l] }}
              </button>
            }
            <button
              type="button"
              class="key"
              [attr.aria-pressed]="redPost()"
              (click)="redPost.set(!redPost())"
            >
              {{ t.redPostFound }}
            </button>
            @if (typical().engine) {
              <button
                type="button"
                class="key"
                [attr.aria-pressed]="diesel()"
                (click)="diesel.set(!diesel())"
              >
                {{ t.diesel }}
              </button>
            }
            <label class="key opens-file"
              >{{ photo() ? t.photo + photo()!.name : t.addAPhoto }}
              <input
                type="file"
                class="visually-hidden"
                accept="image/jpeg,image/png,image/webp"
                #picker
                (change)="photo.set(picker.files?.[0] ?? null)"
            /></label>
          </div>
        </fieldset>
        @for (fault of shownFaults(); track $index) {
          <p class="problem" role="alert">{{ fault }}</p>
        }
      }
      @if (problem(); as text) {
        <p class="problem" role="alert">{{ text }}</p>
      }
    </section>
    <vt-next-action [label]="label()" [disabled]="!mayKeep()" (go)="keep()" />
  `,
  styles: `
    @use 'media';

    :host {
      display: contents;
    }
    legend {
      margin-bottom: 6px;
    }
    .row {
      display: grid;
      grid-template-columns: minmax(0, 1fr) 120px 56px;
      align-items: center;
      gap: 2px 12px;
      width: 100%;
      min-height: 52px;
      padding: 6px 10px;
      border: 0;
      background: none;
      text-align: left;
    }
    .row .dim {
      grid-column: 1 / -1;
      margin: 0;
      font-size: var(--text-xs);
    }
    .row[aria-pressed='true'] {
      background: var(--sheet);
      box-shadow: inset 8px 0 0 var(--lamp);
      padding-left: 18px;
    }
    .bar {
      height: 10px;
      background: var(--line);
    }
    .bar span {
      display: block;
      height: 100%;
      background: var(--ink);
    }
    .share {
      text-align: right;
      font-weight: 700;
    }
    .fields {
      display: grid;
      grid-template-columns: repeat(3, 1fr);
      gap: 8px 12px;
      margin-bottom: 10px;
    }
    @include media.narrow {
      .fields {
        grid-template-columns: 1fr 1fr;
      }
    }
  `,
})
export class Identify {
  protected readonly t = T;

  readonly work = input.required<Work>();
  readonly partChosen = output<LocatePart>();

  private readonly errands = inject(Errands);
  private readonly photos = inject(SendPhoto);
  private readonly store = inject(Store);
  private readonly reporter = inject(Reporter);
  private readonly crewId = this.store.selectSignal(sessionFeature.selectCrewId);

  protected readonly percent = percent;
  protected readonly classes = MACHINE_CLASSES;
  protected readonly classWords = CLASS_WORDS;
  protected readonly clueWords = CLUE_WORDS;
  protected readonly chemistries = CHEMISTRIES;
  protected readonly chemistryWords = CHEMISTRY_WORDS;
  protected readonly layouts = TERMINAL_LAYOUTS;
  protected readonly layoutWords = LAYOUT_WORDS;

  protected readonly typed = signal('');
  private readonly finder = inject(Finder);
  private readonly found = loaded(
    () => this.typed() || undefined,
    (typed) => this.finder.machines(typed),
    NO_MACHINES,
    TYPING_PAUSE_MS,
  );
  protected readonly suggested = computed((): readonly MachineSummary[] =>
    this.found
      .value()
      .machines.filter((m) => m.id !== this.work().machine.id)
      .slice(0, SUGGESTIONS)
      .map(summaryInWords),
  );
  private readonly knownClass = computed(() => this.work().machine.machineClass);
  protected readonly machineClass = linkedSignal<MachineClass>(() => this.knownClass());
  protected readonly typical = computed(() => typicalOf(this.machineClass()));
  protected readonly placeWords = LIKELY_PLACE_WORDS;
  protected readonly clues = computed(() => cluesFor(this.machineClass()));
  /** Another class is looked at afresh. */
  protected readonly seen = linkedSignal<MachineClass, readonly Clue[]>({
    source: this.machineClass,
    computation: () => [],
  });
  protected readonly placeId = linkedSignal<MachineClass, string | null>({
    source: this.machineClass,
    computation: () => null,
  });
  protected readonly places = computed(() => rankPlaces(this.machineClass(), this.seen()));

  protected readonly maker = signal('');
  protected readonly model = signal('');
  protected readonly chemistry = linkedSignal(() => this.typical().rating.chemistry);
  protected readonly capacity = linkedSignal(() => String(this.typical().rating.capacityAh));
  protected readonly cca = linkedSignal(() => String(this.typical().rating.ccaAmps));
  protected readonly litres = linkedSignal(() => String(this.typical().engine?.displacementL ?? ''));
  protected readonly diesel = linkedSignal(() => this.typical().engine?.fuel === 'diesel');
  protected readonly systemVolts = linkedSignal(() => this.typical().systemVolts);
  protected readonly layout = signal<(typeof TERMINAL_LAYOUTS)[number]>('positive-left');
  protected readonly redPost = signal(false);
  protected readonly photo = signal<File | null>(null);
  protected readonly problem = signal<string | null>(null);
  private readonly isBusy = signal(false);

  private readonly isNamed = computed(() => this.maker().trim() !== '' && this.model().trim() !== '');
  private readonly entry = computed(() => {
    const placeId = this.placeId();
    if (!placeId || !this.isNamed()) return null;
    const { engine, rating, gearbox } = this.typical();
    const maker = this.maker().trim();
    const model = this.model().trim();
    const systemVolts = this.systemVolts();
    const finding: MachineFinding = {
      id: idFrom(maker, model),
      maker,
      model,
      machineClass: this.machineClass(),
      gearbox,
      systemVolts,
      placeId,
      rating: {
        ...rating,
        chemistry: this.chemistry(),
        capacityAh: typedFigure(this.capacity()),
        ccaAmps: typedFigure(this.cca()),
      },
      layout: this.layout(),
      redPost: this.redPost(),
      engine: engine && {
        ...engine,
        fuel: this.diesel() ? 'diesel' : 'petrol',
        displacementL: typedFigure(this.litres()),
        systemVolts,
      },
    };
    return machineFrom(finding, templateWords());
  });
  protected readonly shownFaults = computed(() => {
    const machine = this.entry();
    return machine ? Object.values(entryFaults(machine)) : [];
  });
  protected readonly mayKeep = computed(
    () => this.entry() !== null && this.shownFaults().length === 0 && !this.isBusy(),
  );
  protected readonly label = computed(() => {
    if (this.isBusy()) return T.keepingIt;
    if (!this.placeId()) return T.placeMissing;
    return this.isNamed() ? T.saveAction : T.namesMissing;
  });

  protected asChemistry(value: string) {
    return CHEMISTRIES.find((c) => c === value) ?? 'flooded';
  }

  protected toggle(clue: Clue): void {
    this.seen.update((list) => (list.includes(clue) ? list.filter((c) => c !== clue) : [...list, clue]));
  }

  protected choose(modelId: string): void {
    this.reporter.report('model.identified', { modelId });
    this.partChosen.emit('points');
  }

  /** The entry first, then its photo, then the job goes on with it: a photo that is refused keeps the entry. */
  protected async keep(): Promise<void> {
    const machine = this.entry();
    if (!machine || !this.mayKeep()) return;
    this.isBusy.set(true);
    this.problem.set(null);
    try {
      const seen = this.seen().map((clue) => CLUE_WORDS[clue]);
      const note = seen.join(', ').slice(0, 200);
      const errand = { id: crypto.randomUUID(), at: new Date().toISOString(), why: null };
      // An entry that no server answers waits on this device, and the job goes on with it.
      await this.errands.offer({ ...errand, kind: 'entry', machine, by: this.crewId(), note });
      this.reporter.report('model.identified', { modelId: machine.id });
      const photo = this.photo();
      if (photo) await this.photos.send(machine.id, this.crewId(), photo);
      this.partChosen.emit('points');
    } catch (error) {
      this.problem.set(problemText(error));
    } finally {
      this.isBusy.set(false);
    }
  }
}
