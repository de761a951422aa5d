import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import type { ImportReport } from '@voltrek/contracts';
import { NgbActiveModal } from '@ng-bootstrap/ng-bootstrap/modal';
import { Store } from '@ngrx/store';
import type { Observable } from 'rxjs';
import { Api } from '../shared/state/api';
import { problemText } from '../shared/state/problem';
import { sessionFeature } from '../shared/state/session';

/** A file into the atlas: first what it would change, then, all of it or nothing, the change. */
@Component({
  selector: 'vt-import-dialog',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="sheet">
      <h1 id="import-title">Import machines</h1>
      <label>
        <span>Atlas file, JSON or CSV in UTF-8</span>
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
            <p>Nothing is imported while a line is at fault:</p>
            <ul class="lines" tabindex="0">
              @for (f of r.faults; track $index) {
                <li>
                  <strong>Line {{ f.line }}</strong> {{ f.path }}{{ f.path ? ': ' : '' }}{{ f.message }}
                </li>
              }
            </ul>
          </div>
        } @else {
          <p role="status">
            {{ r.applied ? 'Imported.' : 'Would change:' }} {{ r.added.length }} new,
            {{ r.changed.length }} changed, {{ r.same }} the same.
          </p>
          <ul class="lines" tabindex="0">
            @for (name of r.added; track name) {
              <li>
                <strong>{{ name }}</strong> <span class="dim">new</span>
              </li>
            }
            @for (c of r.changed; track c.name) {
              <li>
                <strong>{{ c.name }}</strong> <span class="dim">changes {{ c.parts.join(', ') }}</span>
              </li>
            }
          </ul>
        }
      }
      <div class="keys">
        @if (report(); as r) {
          @if (!r.applied) {
            <button type="button" class="key strong" [disabled]="!mayImport()" (click)="apply()">
              Import
            </button>
          }
        }
        <button type="button" class="key" (click)="modal.close()">
          {{ report()?.applied ? 'Close' : 'Leave it' }}
        </button>
      </div>
    </div>
  `,
  styles: `
    .sheet {
      display: grid;
      gap: 14px;
      padding: 24px;
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
  protected readonly modal = inject(NgbActiveModal);
  private readonly api = inject(Api);
  private readonly crewId = inject(Store).selectSignal(sessionFeature.selectCrewId);
  private file: File | null = null;

  protected readonly report = signal<ImportReport | null>(null);
  protected readonly problem = signal<string | null>(null);

  protected look(file: File | null): void {
    this.file = file;
    this.report.set(null);
    this.problem.set(null);
    if (file) this.answer(this.api.previewImport(file));
  }

  protected mayImport(): boolean {
    const report = this.report();
    return report !== null && report.faults.length === 0 && report.added.length + report.changed.length > 0;
  }

  protected apply(): void {
    const report = this.report();
    if (this.file && report) this.answer(this.api.importAtlas(this.file, this.crewId(), report.basis));
  }

  private answer(request: Observable<ImportReport>): void {
    request.subscribe({
      next: (report) => this.report.set(report),
      error: (error: unknown) => this.problem.set(problemText(error)),
    });
  }
}
