import { metres, section, shownUnit } from '@words/units';
import { fixed } from '@words/numbers';
import { type CdkDragMove, CdkDrag, type CdkDragEnd } from '@angular/cdk/drag-drop';
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
import { clampPoints, type RankedOption } from '@voltrek/core/plan';
import {
  ARRANGEMENTS,
  type Arrangement,
  type LeadPoints,
  parkingAt,
  type Pose,
  poseFor,
} from '@voltrek/core/reach';
import { Store } from '@ngrx/store';
import { ARRANGEMENT_WORDS, ZONE_WORDS } from '@words/atlas-words';
import { unfitWords } from '@words/words';
import { PlanRunner } from '../../../workers/plan-runner';
import { NextAction } from '../../next-action';
import { selectOptions, type Work } from '../../../shared/job/job-selectors';
import { Reporter } from '../../../shared/job/reporter';
import { LocateHead, type LocatePart } from './locate-head';
import { layoutParking, viewOf } from './parking-drawing';
import { PARK_DONOR as T } from '@words/screens/job-stages-locate';

const WIDTH = 300;
const HEIGHT = 490;
const TURN_STEP_DEG = 15;
const MOVE_STEP_MM = 100;

/** The donor in the casualty's plan: dragged, turned or put in a usual arrangement, with the leads as they would lie. */
@Component({
  selector: 'vt-park-donor',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [LocateHead, CdkDrag, NextAction],
  providers: [PlanRunner],
  template: `
    <section class="stage" aria-labelledby="stage-title">
      <vt-locate-head [work]="work()" part="park" (partChosen)="partChosen.emit($event)" />
      <div class="split">
        <div class="place" tabindex="0" role="group" [attr.aria-label]="t.keysHint" (keydown)="onKey($event)">
          @let d = drawn();
          <svg [attr.width]="width" [attr.height]="height" role="img" [attr.aria-label]="summary()">
            <defs>
              <pattern id="park-hot" width="8" height="8" patternUnits="userSpaceOnUse">
                <path d="M0 8 8 0" class="hatch" />
              </pattern>
              <pattern id="park-moving" width="8" height="8" patternUnits="userSpaceOnUse">
                <path d="M0 0 8 8M0 8 8 0" class="hatch" />
              </pattern>
            </defs>
            @for (body of [d.casualty, d.donor]; track $index) {
              @for (w of body.wheels; track $index) {
                <path [attr.d]="w" class="wheel" />
              }
              <path [attr.d]="body.outline" class="body" />
              @for (g of body.glass; track $index) {
                <path [attr.d]="g" class="glass" />
              }
              @for (z of body.zones; track $index) {
                <path [attr.d]="z.path" class="zone" [attr.fill]="'url(#park-' + z.kind + ')'" />
              }
              @for (b of body.batteries; track $index) {
                <path [attr.d]="b" class="battery" />
              }
              <text [attr.x]="body.middle.x" [attr.y]="body.middle.y">
                {{ $index === 0 ? t.casualty : t.donor }}
              </text>
            }
            <path [attr.d]="d.black" class="lead edge" />
            <path [attr.d]="d.black" class="lead black" />
            <path [attr.d]="d.red" class="lead red" />
            @for (e of d.ends; track $index) {
              @if (e.isRed) {
                <path
                  d="M0 -9 9 0 0 9 -9 0Z"
                  class="plus"
                  [attr.transform]="'translate(' + e.at.x + ' ' + e.at.y + ')'"
                />
              } @else {
                <rect
                  x="-9"
                  y="-5"
                  width="18"
                  height="10"
                  class="bar"
                  [attr.transform]="'translate(' + e.at.x + ' ' + e.at.y + ')'"
                />
              }
            }
          </svg>
          <div
            class="grip"
            cdkDrag
            aria-hidden="true"
            [style.left.px]="grip().x - 28"
            [style.top.px]="grip().y - 28"
            (cdkDragMoved)="drag($event)"
            (cdkDragEnded)="drop($event)"
          ></div>
          <div
            class="knob"
            cdkDrag
            aria-hidden="true"
            [style.left.px]="knobAt().x - 24"
            [style.top.px]="knobAt().y - 24"
            (cdkDragMoved)="turnTo($event)"
            (cdkDragEnded)="drop($event)"
          >
            <i class="bi bi-arrow-repeat"></i>
          </div>
        </div>
        <div class="side">
          <p class="figure">
            {{ fixed(unit().show(parking().metresNeeded), 1) }}
            <small>{{ t.ofLeadNeeded({ unit: unit().unit }) }}</small>
          </p>
          <p class="dim">
            {{
              t.apart({
                red: metres(parking().red.metres, 1),
                black: metres(parking().black.metres, 1),
                gap: fixed(parking().gapMm / 1000, 2),
              })
            }}
          </p>
          <div aria-live="polite">
            @for (w of warnings(); track w) {
              <p class="caution"><span aria-hidden="true">!</span> {{ w }}</p>
            }
          </div>
          <ul class="ruled sets">
            @for (s of sets(); track s.id) {
              <li>
                <strong>{{ s.name }}</strong>
                <span [class.tone-bad]="!s.reaches" [class.tone-good]="s.reaches">{{
                  s.reaches ? t.reaches : t.tooShort
                }}</span>
                <span class="dim">{{ s.effect }}</span>
              </li>
            }
          </ul>
          <div class="keys">
            <button type="button" class="key strong" [disabled]="isSearching()" (click)="findBest()">
              {{ isSearching() ? t.looking : t.bestPlace }}
            </button>
            @for (a of arrangements; track a) {
              <button type="button" class="key" (click)="arrange(a)">{{ arrangementWords[a] }}</button>
            }
            <button type="button" class="key" [attr.aria-label]="t.turnLeft" (click)="turn(-turnStep)">
              &#8634; 15°
            </button>
            <button type="button" class="key" [attr.aria-label]="t.turnRight" (click)="turn(turnStep)">
              &#8635; 15°
            </button>
          </div>
        </div>
      </div>
    </section>
    <vt-next-action
      [label]="parking().touching ? t.tooClose : t.parkItHere"
      [disabled]="parking().touching || work().job.closedAt !== null"
      (go)="park()"
    />
  `,
  styleUrl: '../../../shared/drawing/drawing.scss',
  styles: `
    @use 'media';

    :host {
      display: contents;
    }
    .split {
      display: grid;
      grid-template-columns: 300px minmax(0, 1fr);
      gap: 18px;
    }
    .place {
      position: relative;
      width: 304px;
      height: 494px;
      background: var(--sheet);
      border: 2px solid var(--line);
      touch-action: none;
    }
    .grip,
    .knob {
      position: absolute;
      width: 56px;
      height: 56px;
      cursor: grab;
    }
    .grip {
      border: 3px dashed var(--lamp);
      border-radius: 6px;
    }
    .knob {
      width: 48px;
      height: 48px;
      display: grid;
      place-items: center;
      border: 3px solid var(--lamp);
      border-radius: 50%;
      background: var(--sheet);
      font-size: var(--text-l);
    }
    .side {
      display: flex;
      flex-direction: column;
      gap: 10px;
    }
    .sets li {
      display: grid;
      grid-template-columns: 1fr auto;
      gap: 0 10px;
      padding: 8px 0;
      line-height: 1.25;
    }
    .sets .dim {
      grid-column: 1 / -1;
      margin: 0;
      font-size: var(--text-xs);
    }
    .side .keys {
      display: grid;
      grid-template-columns: 1fr 1fr;
    }
    .side .key {
      padding: 4px 6px;
    }
    .side .strong {
      grid-column: 1 / -1;
    }
    /* Drawn smaller than on the Circuit, so thinner. */
    .lead {
      stroke-width: 5;
      stroke-linejoin: round;
    }
    .lead.edge {
      stroke-width: 7.5;
    }
    .plus {
      fill: var(--positive);
      stroke: var(--sheet);
    }
    .bar {
      fill: var(--negative);
      stroke: var(--negative-edge);
      stroke-width: 1.5;
    }
    @include media.narrow {
      .split {
        grid-template-columns: 1fr;
      }
    }
  `,
})
export class ParkDonor {
  protected readonly fixed = fixed;
  protected readonly t = T;

  readonly work = input.required<Work>();
  readonly partChosen = output<LocatePart>();

  private readonly reporter = inject(Reporter);
  private readonly runner = inject(PlanRunner);
  private readonly ranked = inject(Store).selectSignal(selectOptions);

  protected readonly width = WIDTH;
  protected readonly height = HEIGHT;
  protected readonly turnStep = TURN_STEP_DEG;
  protected readonly arrangements = ARRANGEMENTS;
  protected readonly arrangementWords = ARRANGEMENT_WORDS;
  protected readonly isSearching = signal(false);

  private readonly casualty = computed(() => this.work().machine);
  private readonly donor = computed(() => this.work().donorMachine!);
  private readonly points = computed((): LeadPoints => {
    const { red, black } = clampPoints(this.casualty(), { kind: 'whole' }, this.work().rules);
    const on = (...kinds: string[]) => this.donor().points.find((p) => kinds.includes(p.kind))!;
    return {
      casualtyRed: red,
      casualtyBlack: black,
      donorRed: on('red-post', 'battery-positive'),
      donorBlack: on('battery-negative', 'ground-point'),
    };
  });
  private readonly logged = computed(() => this.work().job.parked);
  protected readonly pose = linkedSignal<Pose>(
    () => this.logged() ?? poseFor('nose-to-nose', this.casualty(), this.donor()),
  );
  /** The donor's place when the view was last fitted: the view and the grips stay still under a finger. */
  private readonly settled = linkedSignal<Pose>(
    () => this.logged() ?? poseFor('nose-to-nose', this.casualty(), this.donor()),
  );
  private readonly view = computed(() =>
    viewOf(this.casualty(), this.donor(), this.settled(), WIDTH, HEIGHT),
  );
  protected readonly unit = computed(() => shownUnit('m'));
  protected readonly metres = metres;
  protected readonly parking = computed(() =>
    parkingAt(this.casualty(), this.donor(), this.points(), this.pose()),
  );
  protected readonly drawn = computed(() =>
    layoutParking(this.casualty(), this.donor(), this.pose(), this.parking(), this.view()),
  );
  private readonly still = computed(() =>
    layoutParking(this.casualty(), this.donor(), this.settled(), null, this.view()),
  );
  protected readonly grip = computed(() => {
    const { left, top, scale } = this.view();
    return { x: (this.settled().xMm - left) * scale, y: (this.settled().yMm - top) * scale };
  });
  protected readonly knobAt = computed(() => this.still().knob);

  protected readonly sets = computed(() =>
    this.ranked()
      .filter(({ option }) => option.sourceKind === 'donor')
      .map((ranked) => ({
        id: ranked.option.id,
        name: this.nameOf(ranked.option.leadSetId),
        reaches: ranked.option.leads.lengthM >= this.parking().metresNeeded,
        effect: effectOf(ranked),
      })),
  );
  protected readonly warnings = computed(() => {
    const { touching, red, black } = this.parking();
    const crossed = red.crosses ?? black.crosses;
    return [
      ...(touching ? [T.tooCloseWhy] : []),
      ...(crossed ? [T.crossedWhy({ crossed: ZONE_WORDS[crossed] })] : []),
    ];
  });
  protected readonly summary = computed(() =>
    T.summary({
      gap: metres(this.parking().gapMm / 1000, 2),
      needed: metres(this.parking().metresNeeded, 1),
    }),
  );

  private nameOf(leadSetId: string | null): string {
    return this.work().kit.find((item) => item.id === leadSetId)?.name ?? '';
  }

  protected drag({ distance }: CdkDragMove): void {
    const { scale } = this.view();
    const from = this.settled();
    this.pose.set({ ...from, xMm: from.xMm + distance.x / scale, yMm: from.yMm + distance.y / scale });
  }

  protected turnTo({ distance }: CdkDragMove): void {
    const from = this.knobAt();
    const middle = this.grip();
    // The knob is at the tail: the nose points the other way.
    const turned = Math.atan2(middle.x - from.x - distance.x, from.y + distance.y - middle.y);
    const turnedDeg = Math.round((turned * 180) / Math.PI / 5) * 5;
    this.pose.set({ ...this.settled(), turnedDeg });
  }

  /** The finger is up: the view is fitted anew, and the grip goes with the donor. */
  protected drop({ source }: CdkDragEnd): void {
    source.reset();
    this.settle(this.pose());
  }

  private settle(pose: Pose): void {
    this.pose.set(pose);
    this.settled.set(pose);
  }

  protected arrange(arrangement: Arrangement): void {
    this.settle(poseFor(arrangement, this.casualty(), this.donor()));
  }

  protected turn(byDeg: number): void {
    const turned = this.pose().turnedDeg + byDeg;
    this.settle({ ...this.pose(), turnedDeg: ((turned + 540) % 360) - 180 });
  }

  protected onKey(event: KeyboardEvent): void {
    const by = event.shiftKey ? MOVE_STEP_MM * 5 : MOVE_STEP_MM;
    const moves: Record<string, Partial<Record<'x' | 'y' | 'turn', number>>> = {
      ArrowLeft: { x: -by },
      ArrowRight: { x: by },
      ArrowUp: { y: -by },
      ArrowDown: { y: by },
      ',': { turn: -TURN_STEP_DEG },
      '.': { turn: TURN_STEP_DEG },
    };
    const move = moves[event.key];
    if (!move) return;
    event.preventDefault();
    event.stopPropagation();
    if (move.turn) this.turn(move.turn);
    else
      this.settle({
        ...this.pose(),
        xMm: this.pose().xMm + (move.x ?? 0),
        yMm: this.pose().yMm + (move.y ?? 0),
      });
  }

  /** Many arrangements are tried in a worker, so that the screen stays. */
  protected async findBest(): Promise<void> {
    this.isSearching.set(true);
    const run = this.runner.begin();
    try {
      const pose = await run.ask((worker) => worker.park(this.casualty(), this.donor(), this.points()));
      if (run.isCurrent()) this.settle(pose);
    } finally {
      this.isSearching.set(false);
      this.runner.stop();
    }
  }

  protected park(): void {
    const { pose, gapMm, metresNeeded } = this.parking();
    const tenth = (value: number): number => Math.round(value * 10) / 10;
    this.reporter.report('donor.parked', {
      xMm: tenth(pose.xMm),
      yMm: tenth(pose.yMm),
      turnedDeg: pose.turnedDeg,
      gapMm: tenth(gapMm),
      metresNeeded: Math.round(metresNeeded * 100) / 100,
    });
    this.partChosen.emit('points');
  }
}

/** The effect of the set on this crank: its section and length against volts and speed. */
function effectOf({ option, crank, wake, unfit }: RankedOption): string {
  const { sectionMm2, lengthM } = option.leads;
  const size = `${section(sectionMm2)}, ${metres(lengthM)}`;
  if (unfit && unfit.code !== 'leads-short') return unfitWords(unfit);
  if (crank?.turns)
    return T.sizeCranks({
      size,
      rpm: fixed(crank.rpm),
      neededRpm: fixed(crank.neededRpm),
      starterVolts: fixed(crank.starterVolts, 1),
    });
  if (crank) return T.sizeFails({ size });
  return wake ? T.sizeWakes({ size, postVolts: fixed(wake.postVolts, 1) }) : size;
}
