import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import type { ImportReport } from '@voltrek/contracts';
import { NgbActiveModal, type NgbModal } from '@ng-bootstrap/ng-bootstrap/modal';
import { Store } from '@ngrx/store';
import { finalize, type Observable, type Subscription } from 'rxjs';
import { Api } from '../data/api';
import { problemText } from '../data/problem';
import { sessionFeature } from '../data/session';
import { IMPORT_DIALOG as T } from '@words/screens/ui';
import { faultLine } from '@words/fault-words';

/** The target of a file: its name, and its address. */
export interface ImportTarget {
  readonly name: string;
  readonly address: string;
}

/** A file in: first what it would change, then, all of it or nothing, the change. */
@Component({
  selector: 'vt-import-dialog',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="sheet">
      <h1 id="import-title">{{ t.import({ name: target().name }) }}</h1>
      <label>
        <span>{{ t.fileLabel }}</span>
        <input
          class="field"
          type="file"
          accept=".json,.csv"
          #picker
          (change)="look(picker.files?.[0] ?? null)"
        />
      </label>
      @if (problem(); as text) {
        <p class="problem" role="alert">{{ text }}</p>
      }
      @if (report(); as r) {
        @if (r.faults.length) {
          <div class="problem" role="alert">
            <p>{{ t.faultsTitle }}</p>
            <ul class="lines" tabindex="0">
              @for (f of r.faults; track $index) {
                <li>
                  <strong>{{ t.line({ line: f.line }) }}</strong> {{ textOf(f) }}
                </li>
              }
            </ul>
          </div>
        } @else {
          <p role="status">
            {{
              t.result({
                lead: r.applied ? t.imported : t.wouldChange,
                added: r.added.length,
                changed: r.changed.length,
                same: r.same,
              })
            }}
          </p>
          <ul class="lines" tabindex="0">
            @for (name of r.added; track name) {
              <li>
                <strong>{{ name }}</strong> <span class="dim">{{ t.newWord }}</span>
              </li>
            }
            @for (c of r.changed; track c.name) {
              <li>
                <strong>{{ c.name }}</strong>
                <span class="dim">{{ t.changes({ list: c.parts.join(', ') }) }}</span>
              </li>
            }
          </ul>
        }
      }
      <div class="keys">
        @if (report(); as r) {
          @if (!r.applied) {
            <button type="button" class="key strong" [disabled]="!mayImport()" (click)="apply()">
              {{ t.importAction }}
            </button>
          }
        }
        <button type="button" class="key" (click)="modal.close()">
          {{ report()?.applied ? t.close : t.leaveIt }}
        </button>
      </div>
    </div>
  `,
  styles: `
    .sheet {
      gap: 14px;
    }
    .lines {
      max-height: 260px;
      overflow: auto;
    }
    .lines li {
      padding: 4px 0;
    }
  `,
})
export class ImportDialog {
  protected readonly t = T;
  protected readonly textOf = faultLine;

  protected readonly modal = inject(NgbActiveModal);
  private readonly api = inject(Api);
  private readonly crewId = inject(Store).selectSignal(sessionFeature.selectCrewId);
  private file: File | null = null;
  /** The request on its way: an answer to an older file is of no account. */
  private asked: Subscription | null = null;

  readonly target = signal<ImportTarget>({ name: '', address: '' });
  protected readonly report = signal<ImportReport | null>(null);
  protected readonly problem = signal<string | null>(null);
  protected readonly isBusy = signal(false);

  protected look(file: File | null): void {
    this.file = file;
    this.report.set(null);
    this.problem.set(null);
    this.asked?.unsubscribe();
    if (file) this.answer(this.api.previewImport(this.target().address, file));
  }

  protected mayImport(): boolean {
    const report = this.report();
    return (
      !this.isBusy() &&
      report !== null &&
      report.faults.length === 0 &&
      report.added.length + report.changed.length > 0
    );
  }

  protected apply(): void {
    const report = this.report();
    if (this.file && report && this.mayImport())
      this.answer(this.api.importFile(this.target().address, this.file, this.crewId(), report.basis));
  }

  private answer(request: Observable<ImportReport>): void {
    this.isBusy.set(true);
    this.asked = request.pipe(finalize(() => this.isBusy.set(false))).subscribe({
      next: (report) => this.report.set(report),
      error: (error: unknown) => this.problem.set(problemText(error)),
    });
  }
}

/** Opens the dialog; resolves when it is closed, whether anything was brought in or not. */
export async function importInto(modals: NgbModal, target: ImportTarget): Promise<void> {
  const opened = modals.open(ImportDialog, { ariaLabelledBy: 'import-title', size: 'lg' });
  (opened.componentInstance as ImportDialog).target.set(target);
  await opened.result.catch(() => null);
}
