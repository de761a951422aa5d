import { CdkDrag, type CdkDragEnd, CdkDropList } from '@angular/cdk/drag-drop';
import { DOCUMENT, NgTemplateOutlet } from '@angular/common';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  model,
  output,
  signal,
} from '@angular/core';
import type { InstrumentNow } from '@voltrek/contracts';
import { type ClampId, isSourceClamp } from '@voltrek/core/circuit';
import { checkOf, checksFor } from '@voltrek/core/diagnosis';
import {
  type Confirmation,
  clampsInHand,
  type HandAction,
  PACK_END,
  SPARE_POSTS,
} from '@voltrek/core/hookup';
import { toolsOfKit } from '@voltrek/core/job';
import { startsByWaking } from '@voltrek/core/machine';
import { hasLooseLeads } from '@voltrek/core/plan';
import { AMPS_AROUND, CELLS, optionsOf, type PracticeAction, type World } from '@voltrek/core/practice';
import { FINDING_NAMES } from '@words/diagnosis-words';
import { confirmWords } from '@words/earth-words';
import { clampWords } from '@words/clamp-words';
import { AROUND_WORDS, optionWords, placeName } from '@words/practice-words';
import { CASE_PAGE as T } from '@words/screens/practice';
import { pointAt } from '../shared/drawing/point-at';
import { Choices } from '../shared/ui/choices';

const TOOLS = ['look', 'probes', 'clamp-meter', 'hydrometer', 'clamps', 'spanner', 'key', 'wait'] as const;
type ToolId = (typeof TOOLS)[number];
const WAITS = [1, 3, 5, 10] as const;
/** Looks and settings that belong to a hook-up. */
const LOOKS: readonly Confirmation[] = [
  'all-off',
  'machine-secured',
  'guard-lamp',
  'charger-set',
  'series-sum',
  'cells-bagged',
  'cells-read',
  'big-consumer-on',
];
/** The use of an instrument of the van. */
const READS = { 'clamp-meter': 'drain', hydrometer: 'specific-gravity' } as const;
/** Checks that are done here, not asked for. */
const DONE_BY_HAND: readonly string[] = [
  'symptom',
  'rest',
  'try-alone',
  'with-help',
  'promise',
  'string-balance',
  'drain',
  'specific-gravity',
];

/** The acts of hands in a case, tool by tool. Nothing is greyed because it would be a mistake. */
@Component({
  selector: 'vt-case-tools',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [CdkDrag, CdkDropList, Choices, NgTemplateOutlet],
  templateUrl: './case-tools.html',
  styles: `
    @use 'media';

    :host {
      flex: none;
      display: grid;
      gap: 8px;
      max-height: 46%;
      overflow: auto;
      padding: 8px 14px 12px;
      border-top: 1px solid var(--line);
      background: var(--paper);
    }
    .row {
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      gap: 6px;
    }
    .chip {
      display: inline-grid;
      place-content: center;
      min-height: 48px;
      padding: 0 14px;
      border: 2px dashed var(--ink);
      border-radius: 24px;
      font-weight: 600;
      touch-action: none;
      cursor: grab;
    }
    .chip.red {
      border-color: var(--bad);
    }
    .row > .part {
      min-width: 116px;
    }
    .key {
      font-size: var(--text-xs);
      padding: 4px 11px;
    }
    @include media.phone {
      :host {
        max-height: none;
      }
    }
  `,
})
export class CaseTools {
  protected readonly t = T;

  readonly world = input.required<World>();
  /** The point that was touched last, on the drawing or here. */
  readonly chosenPin = model<string | null>(null);
  /** A consequence is being looked at: time stands still. */
  readonly locked = input(false);
  /** The links of a training bench, by instrument; empty where nothing is, or the case is read by its own. */
  readonly bench = input<readonly InstrumentNow[]>([]);
  /** Readings are taken from the bench. */
  readonly readsBench = model(false);
  readonly does = output<PracticeAction>();

  /** An instrument is there where the van carries it, and has something to be read. */
  protected readonly tools = computed(() => {
    const { kit, profile } = this.practice();
    const readable = checksFor(profile, toolsOfKit(kit)).map(({ id }) => id);
    return TOOLS.filter((id) => !(id in READS) || readable.includes(READS[id as keyof typeof READS]));
  });
  protected readonly around = AMPS_AROUND;
  protected readonly aroundWords = AROUND_WORDS;
  protected readonly cells = Array.from({ length: CELLS }, (_, cell) => cell);
  protected readonly waits = WAITS;
  protected readonly tool = signal<ToolId>('look');
  protected readonly clamp = signal<ClampId>('redCasualty');
  protected readonly red = signal<string | null>(null);
  protected readonly black = signal<string | null>(null);
  protected readonly isFetching = signal(false);
  protected readonly clampWords = clampWords;
  protected readonly isSourceClamp = isSourceClamp;
  private readonly document = inject(DOCUMENT);

  protected readonly practice = computed(() => this.world().practice);
  protected readonly wakes = computed(() => startsByWaking(this.practice().machine));
  protected readonly points = computed(() =>
    this.practice().machine.points.map(({ id, label }) => ({ id, label })),
  );
  /** Of its own batteries: what a spanner takes off. */
  protected readonly posts = computed(() =>
    this.practice().machine.points.filter(({ kind }) => kind.startsWith('battery-')),
  );
  protected readonly options = computed(() =>
    optionsOf(this.world()).map(({ id }) => ({ id, name: optionWords(id, this.practice()) })),
  );
  protected readonly inHand = computed(() => {
    const { option } = this.world();
    return (
      option && {
        clamps: clampsInHand(option),
        isLoose: hasLooseLeads(option),
        kind: option.sourceKind,
        name: optionWords(option.id, this.practice()),
      }
    );
  });
  /** The points that the chosen clamp can go to: anything of its own vehicle. */
  protected readonly places = computed(() => {
    const { machine, donor } = this.practice();
    if (!isSourceClamp(this.clamp())) return machine.points.map(({ id, label }) => ({ id, label }));
    if (this.inHand()?.kind === 'spare-batteries')
      return [
        { id: SPARE_POSTS.plus, label: '+' },
        { id: SPARE_POSTS.minus, label: '-' },
      ];
    return this.inHand()?.isLoose
      ? donor.points.map(({ id, label }) => ({ id, label }))
      : [{ id: PACK_END, label: '' }];
  });
  /** Points of the source that the chosen clamp can go to on the drawing; null where it is the casualty's, or a pack's own end. */
  readonly sourcePoints = computed((): readonly string[] | null => {
    // Before its inputs are there, which the page's drawing asks ahead of, no clamp is in hand.
    if (this.tool() !== 'clamps' || !isSourceClamp(this.clamp()) || !this.isDrawnEnd()) return null;
    return this.places().map(({ id }) => id);
  });
  /** The source's ends of these leads go to points that are drawn: a donor's, or the poles of spare batteries. */
  protected readonly isDrawnEnd = computed(() => {
    const hand = this.inHand();
    return hand !== null && (hand.isLoose || hand.kind === 'spare-batteries');
  });
  protected readonly checks = computed(() => {
    const { profile, tools } = this.practice();
    // A hurt case ends the job: it is looked at first, and weighed by nothing.
    return [checkOf('case'), ...checksFor(profile, tools)]
      .filter((check) => !DONE_BY_HAND.includes(check.id))
      .map(({ id, isOfBattery = false }) => ({ id, name: FINDING_NAMES[id], isOfBattery }));
  });
  protected readonly batteries = computed(() => this.practice().machine.batteries.map((_, i) => i));
  protected readonly looks = computed(() =>
    LOOKS.map((what) => ({ what, title: confirmWords(what, this.practice().machine).title })),
  );

  /** The linked instrument that reads what this tool does. */
  protected readonly linked = computed(() => {
    const instrument = { probes: 'meter', 'clamp-meter': 'clamp' }[this.tool() as string];
    return this.bench().find((linked) => linked.instrument === instrument) ?? null;
  });

  protected name(pointId: string | null): string {
    return pointId === null ? '' : placeName(this.practice().machine, pointId);
  }

  protected onOf(clamp: ClampId): string {
    const at = this.world().hookup.clamps[clamp];
    const { machine, donor } = this.practice();
    return at === null ? '' : `: ${placeName(isSourceClamp(clamp) ? donor : machine, at)}`;
  }

  protected hands(action: Exclude<HandAction, { kind: 'crank' }>): void {
    this.does.emit({ kind: 'hands', action });
  }

  protected putOn(pointId: string): void {
    this.chosenPin.set(pointId);
    this.hands({ kind: 'attach', clamp: this.clamp(), pointId });
  }

  /** The clamp or probe in hand goes to a point that was touched on the drawing: the chosen clamp, or the probe that has no place yet. */
  touch(pointId: string): void {
    if (this.locked()) return;
    const isDrawn = !isSourceClamp(this.clamp()) || this.sourcePoints() !== null;
    if (this.tool() === 'clamps' && this.inHand() && isDrawn) this.putOn(pointId);
    if (this.tool() !== 'probes') return;
    const isSecond = this.red() !== null && this.black() === null;
    if (isSecond) this.black.set(pointId);
    else {
      this.red.set(pointId);
      this.black.set(null);
    }
  }

  /** A clamp was let go over the drawing: it is on the point there, or where it was. */
  protected dropClamp({ dropPoint }: CdkDragEnd): void {
    const pointId = pointAt(this.document, dropPoint);
    if (pointId !== null && !this.locked()) this.putOn(pointId);
  }

  /** A probe was let go over a point of the drawing; once both have a place, it is read. */
  protected dropProbe({ dropPoint }: CdkDragEnd, probe: 'red' | 'black'): void {
    const pointId = pointAt(this.document, dropPoint);
    if (pointId === null || this.locked()) return;
    this.chosenPin.set(pointId);
    this[probe].set(pointId);
    this.probe();
  }

  protected fetch(optionId: string): void {
    this.isFetching.set(false);
    this.does.emit({ kind: 'fetch', optionId });
  }

  protected probe(): void {
    const [red, black] = [this.red(), this.black()];
    if (red && black) this.does.emit({ kind: 'probe', red, black });
  }
}
