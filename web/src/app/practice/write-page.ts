import { DOCUMENT } from '@angular/common';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  signal,
  untracked,
} from '@angular/core';
import { takeUntilDestroyed, toObservable, toSignal } from '@angular/core/rxjs-interop';
import { Router, RouterLink } from '@angular/router';
import {
  codeOfWritten,
  PRACTICE_KIT,
  readCaseCode,
  readWrittenCode,
  type WrittenCase,
} from '@voltrek/core/practice';
import { caseFileOf, type CaseFileFault, readCaseFile } from '@voltrek/contracts/written-case';
import { WRITE_PAGE as T } from '@words/screens/practice';
import { map, startWith, switchMap } from 'rxjs';
import { keepText, keptText } from '../shared/data/kept';
import { faultsOf, formOf, keptOf } from '../shared/ui/checked-form';
import { FormFields } from '../shared/ui/form-fields';
import { saveText } from '../shared/ui/save-text';
import { BLANK_CASE, caseFaults, caseFields, caseOfValues, valuesOfCase } from './case-fields';
import { faultLine } from '@words/fault-words';

const KEY = 'voltrek.practice.written';

/** A case is written: machine, faults, the driver's story, what is at hand and the cold; tried, and given on as a file or an address. */
@Component({
  selector: 'vt-write-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { class: 'page' },
  imports: [FormFields, RouterLink],
  template: `
    <header>
      <h1>{{ t.writeACase }}</h1>
      <span class="dim">{{ t.subtitle }}</span>
      <a class="key" routerLink="/practice">{{ t.practice }}</a>
    </header>
    <div class="halves">
      <section [attr.aria-label]="t.storyTitle">
        <vt-form-fields [fields]="fields()" [form]="form()" />
      </section>
      <section>
        <h2>{{ t.kitLabel }}</h2>
        <div class="row">
          @for (item of carried; track item.id) {
            <button
              type="button"
              class="key"
              [attr.aria-pressed]="kit().includes(item.id)"
              (click)="turnKit(item.id)"
            >
              {{ item.name }}
            </button>
          }
        </div>
        <div class="row ends">
          <button type="button" class="key strong" [disabled]="!written()" (click)="tryIt()">
            {{ t.tryIt }}
          </button>
          <button type="button" class="key" [disabled]="!written()" (click)="save()">
            {{ t.saveAsFile }}
          </button>
          <button type="button" class="key" [disabled]="!written()" (click)="copy()">
            {{ t.copyAddress }}
          </button>
          <label class="key file">
            {{ t.openAFile }}
            <input #picker type="file" accept=".json,application/json" (change)="open(picker)" />
          </label>
          <a class="key" href="/api/practice/schema.json" target="_blank">{{ t.schema }}</a>
        </div>
        @if (faultOfForm(); as text) {
          <p class="tone-bad" role="alert">{{ text }}</p>
        }
        <p role="status" class="dim">{{ done() }}</p>
        @if (refused(); as r) {
          <div class="problem" role="alert">
            <p>{{ t.notTaken({ name: r.name }) }}</p>
            <ul>
              @for (f of r.faults; track $index) {
                <li>
                  <strong>{{ t.line({ line: f.line }) }}</strong> {{ textOf(f) }}
                </li>
              }
            </ul>
          </div>
        }
      </section>
    </div>
  `,
  styles: `
    @use 'media';

    .halves {
      display: grid;
      grid-template-columns: minmax(0, 3fr) minmax(0, 2fr);
      gap: 10px 32px;
      align-items: start;
    }
    .row {
      display: flex;
      flex-wrap: wrap;
      gap: 6px;
      margin: 6px 0 14px;
    }
    .ends {
      padding-top: 14px;
      border-top: 1px solid var(--line);
    }
    h2 {
      font-size: var(--text-s);
    }
    .file {
      position: relative;
      display: inline-grid;
      align-content: center;
    }
    .file input {
      position: absolute;
      inset: 0;
      opacity: 0;
      font-size: 0;
      cursor: pointer;
    }
    .file:focus-within {
      outline: 3px solid var(--focus);
      outline-offset: 2px;
    }
    li {
      overflow-wrap: anywhere;
    }
    @include media.phone {
      .halves {
        grid-template-columns: minmax(0, 1fr);
      }
    }
  `,
})
export class WritePage {
  protected readonly t = T;
  protected readonly textOf = faultLine;
  protected readonly carried = PRACTICE_KIT;

  /** The code of a case to begin with, in the address. */
  readonly from = input<string>();

  private readonly document = inject(DOCUMENT);
  private readonly router = inject(Router);

  private readonly begun = signal<WrittenCase>(this.kept());
  protected readonly kit = signal(this.begun().kit);
  private readonly machineClass = computed(() => this.begun().machineClass);
  protected readonly fields = computed(() => caseFields(this.machineClass()));
  /** Made anew with another machine: what is asked and what can be wrong are its own. */
  protected readonly form = computed(() => {
    const [fields, begun] = [this.fields(), this.begun()];
    // The kit is checked with the case, and is no reason for another form: the typed text would be lost.
    return untracked(() =>
      formOf(fields, valuesOfCase(begun), (values) => caseFaults(fields, this.caseOf(values))),
    );
  });
  private readonly values = toSignal(
    toObservable(this.form).pipe(
      switchMap((form) =>
        form.valueChanges.pipe(
          map(() => form),
          startWith(form),
        ),
      ),
      map((form) => ({ values: keptOf(this.fields(), form), faults: faultsOf(form) })),
    ),
  );
  /** As it stands; null while something of it is wrong. */
  protected readonly written = computed((): WrittenCase | null => {
    const now = this.values();
    if (!now || Object.keys(now.faults).length > 0 || this.kit().length === 0) return null;
    return this.caseOf(now.values);
  });
  protected readonly faultOfForm = computed(() =>
    this.kit().length === 0 ? T.kitMissing : (this.values()?.faults[''] ?? null),
  );
  protected readonly refused = signal<{ name: string; faults: readonly CaseFileFault[] } | null>(null);
  protected readonly done = signal('');

  constructor() {
    effect(() => {
      const from = readCaseCode(this.from() ?? '');
      if (from?.made) this.begin(from.written ?? { ...BLANK_CASE, ...from.made, number: from.number });
    });
    toObservable(this.form)
      .pipe(
        switchMap((form) => form.valueChanges.pipe(map(() => keptOf(this.fields(), form)))),
        takeUntilDestroyed(),
      )
      .subscribe((values) => {
        // The typed values stay, as far as another machine can have them.
        if (values.machineClass !== this.machineClass()) this.begun.set(this.caseOf(values));
      });
    effect(() => {
      const written = this.written();
      if (written) keepText(KEY, codeOfWritten(written));
    });
  }

  private begin(written: WrittenCase): void {
    this.begun.set(written);
    this.kit.set(written.kit);
  }

  private kept(): WrittenCase {
    try {
      return readWrittenCode(keptText(KEY) ?? '') ?? BLANK_CASE;
    } catch {
      return BLANK_CASE;
    }
  }

  private caseOf(values: Parameters<typeof caseOfValues>[0]): WrittenCase {
    return { ...caseOfValues(values), kit: this.kit() };
  }

  protected turnKit(id: string): void {
    this.kit.update((list) => (list.includes(id) ? list.filter((k) => k !== id) : [...list, id]));
  }

  protected tryIt(): void {
    void this.router.navigate(['/practice', codeOfWritten(this.written()!)]);
  }

  protected save(): void {
    const written = this.written()!;
    saveText(this.document, `case-${fileName(written.title)}.json`, caseFileOf(written));
    this.done.set(T.saved);
  }

  protected async copy(): Promise<void> {
    const { clipboard } = this.document.defaultView!.navigator;
    const path = this.router.serializeUrl(
      this.router.createUrlTree(['/practice', codeOfWritten(this.written()!)]),
    );
    try {
      await clipboard.writeText(this.document.location.origin + path);
      this.done.set(T.copied);
    } catch {
      this.done.set(T.notCopied);
    }
  }

  protected async open(picker: HTMLInputElement): Promise<void> {
    const file = picker.files?.[0];
    picker.value = '';
    if (!file) return;
    const read = readCaseFile(await file.text());
    this.refused.set('faults' in read ? { name: file.name, faults: read.faults } : null);
    this.done.set('faults' in read ? '' : T.opened({ name: file.name }));
    if ('written' in read) this.begin(read.written);
  }
}

/** A title as a file's name: plain letters, digits and dashes. */
const fileName = (title: string): string =>
  title
    .normalize('NFKD')
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '') || 'voltrek';
