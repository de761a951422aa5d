import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { NgbModal } from '@ng-bootstrap/ng-bootstrap/modal';
import { Store } from '@ngrx/store';
import { kitCopy } from '../shared/data/kit';
import { crewCopy } from '../shared/data/crew';
import { importInto } from '../shared/ui/import-dialog';
import { type HouseFile, HOUSE_FILE_WORDS, HOUSE_FILES } from '@words/file-words';
import { FILES_PAGE as T } from '@words/screens/files';

/** Everything that is kept here, out as a file and the same in again. */
@Component({
  selector: 'vt-files-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { class: 'page', tabindex: '0' },
  template: `
    <header>
      <h1>{{ t.files }}</h1>
    </header>
    <p class="dim">
      {{ t.subtitle }}
    </p>
    <ul class="ruled">
      @for (file of files; track file.id) {
        <li [attr.aria-label]="words[file.id].name">
          <span>
            <strong>{{ words[file.id].name }}</strong>
            <span class="dim">{{ words[file.id].holds }}</span>
          </span>
          <span class="keys">
            <button
              type="button"
              class="key"
              [attr.aria-label]="t.import + words[file.id].name"
              (click)="bringIn(file)"
            >
              {{ t.importAction }}
            </button>
            <a class="key" [href]="file.address + '/export.json'" [attr.download]="file.id + '.json'">{{
              t.json
            }}</a>
            <a class="key" [href]="file.address + '/export.csv'" [attr.download]="file.id + '.csv'">{{
              t.csv
            }}</a>
            <a class="key" [href]="file.address + '/schema.json'" target="_blank">{{ t.schema }}</a>
          </span>
        </li>
      }
    </ul>
    <p class="dim last">
      {{ t.everything }} <code>{{ t.exportCommand }}</code> {{ t.intoEmptyFolder }}
      <code>{{ t.importCommand }}</code
      >.
    </p>
  `,
  styles: `
    p {
      max-width: 70ch;
      margin: 0 0 14px;
    }
    li {
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      justify-content: space-between;
      gap: 6px 16px;
      padding: 8px 0;
    }
    li > :first-child {
      display: grid;
      grid-template-columns: 110px 1fr;
      flex: 1 1 340px;
    }
    .last {
      margin-top: 18px;
    }
    code {
      color: inherit;
    }
  `,
})
export class FilesPage {
  protected readonly t = T;

  private readonly modals = inject(NgbModal);
  private readonly store = inject(Store);
  protected readonly files = HOUSE_FILES;
  protected readonly words = HOUSE_FILE_WORDS;

  protected async bringIn({ id, address }: HouseFile): Promise<void> {
    await importInto(this.modals, { name: HOUSE_FILE_WORDS[id].name, address });
    // Every page knows the crew and the kit of the vans.
    this.store.dispatch(crewCopy.requested());
    this.store.dispatch(kitCopy.requested());
  }
}
