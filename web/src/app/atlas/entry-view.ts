import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import type { AtlasEntry, CrewMember } from '@voltrek/contracts';
import { isTemplate } from '@voltrek/core/template';
import { CHANGE_WORDS, CONFIDENCE_WORDS, FUEL_WORDS, LAYOUT_WORDS } from '@words/atlas-words';
import { nameOf, ratingWords } from '@words/figures';
import { POINT_KIND_WORDS } from '@words/words';
import { When } from '../shared/ui/when';
import { ENTRY_VIEW as T } from '@words/screens/atlas';

/** One entry of the atlas in words: battery, engine, points with their steps, warnings, photos and history. */
@Component({
  selector: 'vt-entry-view',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [When],
  template: `
    @let m = entry().machine;
    <h2 id="machine-name">{{ m.maker }} {{ m.model }}</h2>
    @if (isForClass()) {
      <p class="caution"><span aria-hidden="true">!</span> {{ t.classEntry }}</p>
    } @else {
      <p class="dim">{{ confidenceWords[entry().confidence] }}</p>
      <div class="keys">
        <button type="button" class="key" (click)="confirmed.emit()">{{ t.itIsSo }}</button>
        <button type="button" class="key" (click)="corrected.emit()">{{ t.correctIt }}</button>
        <label class="key opens-file"
          >{{ t.addAPhoto }}
          <input
            type="file"
            class="visually-hidden"
            accept="image/jpeg,image/png,image/webp"
            #picker
            (change)="send(picker)"
        /></label>
      </div>
    }
    <dl>
      @for (b of m.batteries; track $index) {
        <dt>{{ t.battery({ index: m.batteries.length > 1 ? $index + 1 : '' }) }}</dt>
        <dd>
          {{ ratingWords(b.rating) }}, {{ layoutWords[b.layout] }}; {{ b.place
          }}{{ b.ventHose ? t.ventHose : '' }}
        </dd>
      }
      <dt>{{ t.engine }}</dt>
      <dd>
        {{
          m.engine
            ? t.engineLine({
                fuel: fuels[m.engine.fuel],
                litres: m.engine.displacementL,
                cylinders: m.engine.cylinders,
              })
            : t.wakesDoesNotCrank
        }}
      </dd>
    </dl>
    <ol class="ruled points">
      @for (p of m.points; track p.id; let i = $index) {
        <li>
          <button
            type="button"
            class="point"
            [attr.aria-pressed]="p.id === pin()"
            (click)="pinChosen.emit(p.id)"
          >
            <strong>{{ i + 1 }}. {{ p.label }}</strong> <span class="dim">{{ kindWords[p.kind] }}</span>
            <span class="steps">{{ p.steps.join(' ') }}</span>
            @if (p.cover || p.tools?.length) {
              <span class="steps dim"
                >{{ p.cover ? t.under + p.cover : '' }}{{ p.cover && p.tools?.length ? '; ' : ''
                }}{{ p.tools?.length ? t.tools + p.tools!.join(', ') : '' }}</span
              >
            }
          </button>
        </li>
      }
    </ol>
    @for (c of m.cautions; track $index) {
      <p class="caution"><span aria-hidden="true">!</span> {{ c }}</p>
    }
    @for (n of m.never; track $index) {
      <p class="never">
        <strong>{{ t.never }}</strong> {{ n }}
      </p>
    }
    @if (m.resets.length) {
      <p class="dim">{{ t.resets({ list: m.resets.join(', ') }) }}</p>
    }
    @if (entry().photos.length) {
      <div class="photos">
        @for (photo of entry().photos; track photo.id; let i = $index) {
          <img
            [src]="'/api/models/' + m.id + '/photos/' + photo.id"
            [alt]="t.photo + (i + 1) + t.by + nameOf(photo.by)"
            loading="lazy"
          />
        }
      </div>
    }
    @if (entry().history.length) {
      <section [attr.aria-label]="t.history">
        <h3>{{ t.history }}</h3>
        <ul class="ruled history">
          @for (change of entry().history; track change.revision) {
            <li>
              <strong>{{ changeWords[change.kind] }}</strong> <span>{{ nameOf(change.by) }}</span>
              <span class="dim">{{ change.at | when: 'dateTime' }}</span> <span>{{ change.note }}</span>
            </li>
          }
        </ul>
      </section>
    }
  `,
  styles: `
    a.record {
      display: grid;
      place-items: center;
      text-decoration: none;
    }
    :host {
      display: flex;
      flex-direction: column;
      gap: 14px;
    }
    h2 {
      font-size: var(--text-xl);
    }
    h3 {
      font-size: var(--text-m);
    }
    dl {
      display: grid;
      grid-template-columns: 80px 1fr;
      gap: 4px 12px;
      margin: 0;
    }
    dt {
      font-weight: 500;
      color: var(--dim);
    }
    dd {
      margin: 0;
    }
    .point {
      display: block;
      width: 100%;
      min-height: 56px;
      padding: 6px 10px;
      border: 0;
      background: none;
      text-align: left;
    }
    .point[aria-pressed='true'] {
      background: var(--sheet);
      box-shadow: inset 8px 0 0 var(--lamp);
      padding-left: 18px;
    }
    .steps {
      display: block;
    }
    .never {
      padding-left: 12px;
      border-left: 6px solid var(--bad);
    }
    .photos {
      display: grid;
      grid-template-columns: repeat(auto-fill, minmax(180px, 1fr));
      gap: 10px;
    }
    img {
      width: 100%;
      border: 2px solid var(--line);
    }
    .history li {
      display: flex;
      flex-wrap: wrap;
      gap: 4px 12px;
      padding: 8px 0;
    }
  `,
})
export class EntryView {
  protected readonly t = T;

  readonly entry = input.required<AtlasEntry>();
  readonly crew = input.required<readonly CrewMember[]>();
  readonly pin = input<string | null>(null);
  readonly pinChosen = output<string>();
  readonly confirmed = output();
  readonly corrected = output();
  readonly photoSent = output<File>();

  protected readonly kindWords = POINT_KIND_WORDS;
  protected readonly confidenceWords = CONFIDENCE_WORDS;
  protected readonly ratingWords = ratingWords;
  protected readonly layoutWords = LAYOUT_WORDS;
  protected readonly fuels = FUEL_WORDS;
  protected readonly changeWords = CHANGE_WORDS;
  protected readonly isForClass = computed(() => isTemplate(this.entry().machine));

  protected nameOf(crewId: string): string {
    return nameOf(this.crew(), crewId);
  }

  protected send(picker: HTMLInputElement): void {
    const photo = picker.files?.[0];
    // The same photo may be sent again after a refusal.
    picker.value = '';
    if (photo) this.photoSent.emit(photo);
  }
}
