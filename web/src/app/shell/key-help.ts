import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { NgbActiveModal } from '@ng-bootstrap/ng-bootstrap/modal';
import { KEY_HELP as T } from '@words/screens/shell';

/** The keys, in one list. */
@Component({
  selector: 'vt-key-help',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="sheet">
      <h1 id="keys-title">{{ t.keys }}</h1>
      <dl>
        @for (row of rows; track row.key) {
          <dt>
            <kbd>{{ row.key }}</kbd>
          </dt>
          <dd>{{ row.does }}</dd>
        }
      </dl>
      <button type="button" class="key" (click)="modal.dismiss()">{{ t.close }}</button>
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
  protected readonly t = T;

  protected readonly modal = inject(NgbActiveModal);
  protected readonly rows = [
    { key: '1 to 9', does: T.openStage },
    { key: 'Enter', does: T.next },
    { key: 'U', does: 'undo' },
    { key: 'R', does: T.takeAReading },
    { key: 'M', does: T.makeSafe },
    { key: '/', does: 'search' },
    { key: '?', does: T.thisList },
  ];
}
