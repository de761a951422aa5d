import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { NgbActiveModal } from '@ng-bootstrap/ng-bootstrap/modal';

/** The keys, in one list. */
@Component({
  selector: 'vt-key-help',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="sheet">
      <h1 id="keys-title">Keys</h1>
      <dl>
        @for (row of rows; track row.key) {
          <dt>
            <kbd>{{ row.key }}</kbd>
          </dt>
          <dd>{{ row.does }}</dd>
        }
      </dl>
      <button type="button" class="key" (click)="modal.dismiss()">Close</button>
    </div>
  `,
  styles: `
    .sheet {
      justify-items: start;
    }
    dl {
      display: grid;
      grid-template-columns: auto 1fr;
      gap: 8px 20px;
      align-items: center;
    }
    dd {
      margin: 0;
    }
    kbd {
      padding: 3px 10px;
      border: 1.5px solid var(--ink);
      border-radius: 4px;
      background: none;
      color: var(--ink);
      font: inherit;
      font-weight: 600;
    }
  `,
})
export class KeyHelp {
  protected readonly modal = inject(NgbActiveModal);
  protected readonly rows = [
    { key: '1 to 9', does: 'open a stage (on Measure: type a figure)' },
    { key: 'Enter', does: 'the next action' },
    { key: 'U', does: 'undo' },
    { key: 'R', does: 'take a reading' },
    { key: 'M', does: 'make safe' },
    { key: '/', does: 'search' },
    { key: '?', does: 'this list' },
  ];
}
