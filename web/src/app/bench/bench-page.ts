import { fromShownUnit, inShownUnit, shownUnit } from '@words/units';
import { Clipboard } from '@angular/cdk/clipboard';
import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { ActivatedRoute, Router, RouterLink } from '@angular/router';
import { BENCH_CHOICES, BENCH_FIELDS, BENCH_RESULTS, BENCH_TOOLS, BENCH_WORDS } from '@words/bench-words';
import { type Curve, curveOf } from './curve';
import { CurveChart } from './curve-chart';
import { answersOf, givenOf, type ReadField, readFields } from './read-fields';
import { TOOLS } from './tools';
import { Choices } from '../shared/ui/choices';
import { BENCH_PAGE as T } from '@words/screens/bench';

/** Calculators over the core, for the depot: each with its formula, its usual mistake, and its values in the address. */
@Component({
  selector: 'vt-bench-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Choices, RouterLink, CurveChart],
  template: `
    <nav class="tools" [attr.aria-label]="t.calculators">
      @for (id of toolIds; track id) {
        <a
          [routerLink]="['/bench', id]"
          [class.here]="id === toolId()"
          [attr.aria-current]="id === toolId() ? 'page' : null"
          >{{ words[id].name }}</a
        >
      }
    </nav>
    <section class="work" aria-labelledby="tool-name">
      <header>
        <h1 id="tool-name">{{ words[toolId()].name }}</h1>
        <button type="button" class="key" (click)="copy()">
          <i class="bi bi-clipboard" aria-hidden="true"></i>
          {{ copied() === asText() ? t.copied : t.copyAsText }}
        </button>
        <button type="button" class="key" (click)="reset()">{{ t.usualValues }}</button>
      </header>
      <div class="fields">
        @for (f of fields(); track f.field.key) {
          @if (f.field.kind === 'choice') {
            <fieldset>
              <legend>{{ fieldWords[f.field.key] }}</legend>
              <div class="choices" role="radiogroup" [attr.aria-label]="fieldWords[f.field.key]">
                @for (option of f.field.options; track option) {
                  <button
                    type="button"
                    role="radio"
                    class="key"
                    [attr.aria-checked]="f.text === option"
                    (click)="give(f.field.key, option)"
                  >
                    {{ choiceWords[option] }}
                  </button>
                }
              </div>
            </fieldset>
          } @else {
            <label class="number">
              <span>{{ fieldWords[f.field.key] }}</span>
              <span class="with-unit">
                <input
                  class="field"
                  inputmode="decimal"
                  autocomplete="off"
                  [value]="shownText(f)"
                  [attr.aria-invalid]="f.fault !== null"
                  #typed
                  (input)="give(f.field.key, keptText(f, typed.value))"
                />
                <span class="unit">{{ unitOf(f.field.range.unit).unit }}</span>
              </span>
              @if (f.fault; as why) {
                <span class="fault" role="alert">{{ why }}</span>
              }
            </label>
          }
        }
      </div>
      @if (answers().problem; as problem) {
        <p class="problem" role="alert">{{ problem }}</p>
      }
      <dl class="results" aria-live="polite">
        @for (r of answers().results; track r.key) {
          <div>
            <dt>{{ resultWords[r.key] }}</dt>
            <dd class="figure" [class]="r.tone ? 'tone-' + r.tone : ''" [class.words]="r.text.length > 9">
              {{ r.text }} <small>{{ r.unit }}</small>
            </dd>
          </div>
        } @empty {
          <p class="dim">{{ t.noAnswer }}</p>
        }
      </dl>
      @if (curve(); as drawn) {
        <vt-curve-chart [curve]="drawn" (moved)="moveTo(drawn, $event)" />
      }
    </section>
    <aside [attr.aria-label]="t.methodTitle">
      <h2>{{ t.formula }}</h2>
      @for (line of formula(); track line) {
        <p class="formula">{{ line }}</p>
      }
      <h2>{{ t.mistakeTitle }}</h2>
      <p class="caution"><span aria-hidden="true">!</span> {{ words[toolId()].slip }}</p>
    </aside>
  `,
  styleUrl: './bench-page.scss',
})
export class BenchPage {
  protected readonly t = T;

  /** The tool in the address; the first when none, or none such, is named. */
  readonly tool = input<string>();

  private readonly router = inject(Router);
  private readonly route = inject(ActivatedRoute);
  private readonly clipboard = inject(Clipboard);
  private readonly query = toSignal(this.route.queryParams, { initialValue: {} as Record<string, string> });

  protected readonly toolIds = BENCH_TOOLS;
  protected readonly words = BENCH_WORDS;
  protected readonly formula = computed(() => BENCH_WORDS[this.toolId()].formula.split('\n'));
  protected readonly fieldWords = BENCH_FIELDS;
  protected readonly choiceWords = BENCH_CHOICES;
  protected readonly resultWords = BENCH_RESULTS;
  protected readonly copied = signal('');

  protected readonly toolId = computed(() => BENCH_TOOLS.find((id) => id === this.tool()) ?? BENCH_TOOLS[0]);
  protected readonly fields = computed(() => readFields(TOOLS[this.toolId()], this.query()));
  protected readonly answers = computed(() => answersOf(TOOLS[this.toolId()], this.fields()));
  /** The curve that the values stand on; null until all of them can be counted with. */
  protected readonly curve = computed(() => {
    const fields = this.fields();
    const { results, problem } = this.answers();
    return problem !== null || results.length === 0 ? null : curveOf(TOOLS[this.toolId()], givenOf(fields));
  });
  /** The input and the output, line by line. */
  protected readonly asText = computed(() => {
    const given = this.fields().map(({ field, text }) =>
      field.kind === 'choice'
        ? `${BENCH_FIELDS[field.key]}: ${BENCH_CHOICES[text as keyof typeof BENCH_CHOICES]}`
        : `${BENCH_FIELDS[field.key]}: ${this.shownText({ field, text })} ${this.unitOf(field.range.unit).unit}`,
    );
    const results = this.answers().results.map((r) => `${BENCH_RESULTS[r.key]}: ${r.text} ${r.unit}`);
    return [BENCH_WORDS[this.toolId()].name, ...given, '', ...results]
      .map((line) => line.trimEnd())
      .join('\n');
  });

  protected readonly unitOf = shownUnit;
  /** The last text in a unit of this device, so that it stands as it was typed. */
  private typed: { readonly key: string; readonly kept: string; readonly text: string } | null = null;

  /** A figure in the unit of this device; the address keeps it in its own. */
  protected shownText({ field, text }: Pick<ReadField, 'field' | 'text'>): string {
    if (this.typed?.key === field.key && this.typed.kept === text) return this.typed.text;
    return field.kind === 'number' ? inShownUnit(text, field.range.unit) : text;
  }

  protected keptText({ field }: Pick<ReadField, 'field'>, text: string): string {
    const kept = field.kind === 'number' ? fromShownUnit(text, field.range.unit) : text;
    this.typed = { key: field.key, kept, text };
    return kept;
  }

  protected moveTo(drawn: Curve, x: number): void {
    const typed = drawn.typedAt(x);
    if (typed) this.give(typed.field, typed.text);
  }

  protected give(key: string, text: string): void {
    void this.router.navigate([], {
      relativeTo: this.route,
      queryParams: { [key]: text },
      queryParamsHandling: 'merge',
      replaceUrl: true,
    });
  }

  protected reset(): void {
    void this.router.navigate([], { relativeTo: this.route, queryParams: {}, replaceUrl: true });
  }

  protected copy(): void {
    if (this.clipboard.copy(`${this.asText()}\n${location.href}`)) this.copied.set(this.asText());
  }
}
