import { ChangeDetectionStrategy, Component, computed, inject, linkedSignal } from '@angular/core';
import type { AtlasEntry } from '@voltrek/contracts';
import { NgbModal } from '@ng-bootstrap/ng-bootstrap/modal';
import { Store } from '@ngrx/store';
import { defer, filter } from 'rxjs';
import { MachineDrawing } from '../shared/drawing/machine-drawing';
import { SendPhoto } from '../shared/sync/send-photo';
import { Api } from '../shared/data/api';
import { Finder, NO_MACHINES, TYPING_PAUSE_MS } from '../shared/data/finder';
import { LastAsked } from '../shared/data/last-asked';
import { loaded } from '../shared/data/loaded';
import { crewCopy } from '../shared/data/crew';
import { sessionFeature } from '../shared/data/session';
import { deviceFeature } from '../shared/sync/device-state';
import { importInto } from '../shared/ui/import-dialog';
import { CONFIDENCE_MARKS } from '@words/atlas-words';
import { inWords, summaryInWords } from '@words/template-words';
import { CLASS_WORDS } from '@words/words';
import { type EditedEntry, EntryEditor } from '../shared/entry/entry-editor';
import { EntryView } from './entry-view';
import { When } from '../shared/ui/when';
import { ATLAS_PAGE as T } from '@words/screens/atlas';

/** Machines, their points and how to reach them. */
@Component({
  selector: 'vt-atlas-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [EntryView, MachineDrawing, When],
  template: `
    <div class="list">
      <header>
        <div class="title">
          <h1>{{ t.atlas }}</h1>
          <span class="dim">{{ t.machines({ total: total() }) }}</span>
        </div>
        <input
          type="search"
          class="field"
          [attr.aria-label]="t.searchLabel"
          [placeholder]="t.searchHint"
          maxlength="120"
          [value]="typed()"
          #typedInput
          (input)="typed.set(typedInput.value)"
        />
        <div class="keys">
          <button type="button" class="key" (click)="importFile()">{{ t.import }}</button>
          <a class="key" href="/api/models/export.json" download="atlas.json">{{ t.json }}</a>
          <a class="key" href="/api/models/export.csv" download="atlas.csv">{{ t.csv }}</a>
          <a class="key" href="/api/models/schema.json" target="_blank">{{ t.schema }}</a>
        </div>
      </header>
      @if (heldAt(); as at) {
        <p class="dim" role="status">{{ t.offlineSince({ at: at | when: 'dayTime' }) }}</p>
      }
      @if (photoWaits()) {
        <p role="status">{{ t.photoWaits }}</p>
      }
      @if (problem(); as text) {
        <p class="problem" role="alert">{{ text }}</p>
      }
      <ul class="ruled">
        @for (m of found(); track m.id) {
          <li>
            <button
              type="button"
              class="row"
              [attr.aria-pressed]="m.id === chosenId()"
              (click)="chosenId.set(m.id)"
            >
              <strong>{{ m.maker }} {{ m.model }}</strong>
              <span class="dim">{{
                t.vBattery({
                  machineClass: classWords[m.machineClass],
                  systemVolts: m.systemVolts,
                  places: m.places,
                  confidence: marks[m.confidence] ? ', ' + marks[m.confidence] : '',
                })
              }}</span>
            </button>
          </li>
        } @empty {
          <li class="dim none">{{ t.empty }}</li>
        }
      </ul>
    </div>
    @if (entry(); as e) {
      <section class="detail" tabindex="0" aria-labelledby="machine-name">
        <vt-entry-view
          [entry]="e"
          [crew]="crew()"
          [pin]="pin()"
          (pinChosen)="pin.set($event)"
          (confirmed)="confirm()"
          (corrected)="correct()"
          (photoSent)="sendPhoto($event)"
        />
      </section>
      <aside class="drawing" [attr.aria-label]="t.drawing">
        <vt-machine-drawing [machine]="e.machine" [chosenPin]="pin()" (pinChosen)="pin.set($event)" />
      </aside>
    }
  `,
  styles: `
    :host {
      flex: 1;
      min-height: 0;
      display: grid;
      grid-template-columns: 380px minmax(0, 1fr) 420px;
    }
    .list,
    .detail {
      min-height: 0;
      overflow: auto;
      padding: 18px 20px;
    }
    .list header {
      display: grid;
      gap: 10px;
      margin-bottom: 10px;
    }
    .title {
      display: flex;
      justify-content: space-between;
      align-items: baseline;
    }
    .title + .field + .keys .key {
      padding: 6px 11px;
    }
    .detail {
      border-left: 1px solid var(--line);
    }
    .drawing {
      padding: 14px;
      min-height: 0;
      background: var(--sheet);
      border-left: 1px solid var(--line);
    }
    .row {
      display: block;
      width: 100%;
      min-height: 56px;
      padding: 6px 10px;
      border: 0;
      background: none;
      text-align: left;
    }
    .row[aria-pressed='true'] {
      background: var(--sheet);
      box-shadow: inset 8px 0 0 var(--lamp);
      padding-left: 18px;
    }
    .row strong,
    .row span {
      display: block;
    }
    .row span {
      margin: 0;
      font-size: var(--text-xs);
    }
    .none {
      padding: 14px 0;
    }
    @media (max-width: 1000px) {
      :host {
        display: block;
        overflow: auto;
      }
      .list {
        max-height: 46vh;
      }
      .detail {
        border: 0;
      }
      .drawing {
        height: 70vh;
      }
    }
  `,
})
export class AtlasPage {
  protected readonly t = T;

  private readonly store = inject(Store);
  private readonly modals = inject(NgbModal);

  private readonly api = inject(Api);
  private readonly finder = inject(Finder);
  private readonly photos = inject(SendPhoto);
  protected readonly typed = inject(LastAsked).atlas;
  private readonly search = loaded(
    () => this.typed(),
    (typed) => this.finder.machines(typed),
    NO_MACHINES,
    TYPING_PAUSE_MS,
  );
  protected readonly found = computed(() => this.search.value().machines.map(summaryInWords));
  protected readonly total = computed(() => this.search.value().total);
  protected readonly heldAt = this.finder.heldAt;
  protected readonly crew = this.store.selectSignal(crewCopy.selectCopy);
  private readonly crewId = this.store.selectSignal(sessionFeature.selectCrewId);
  protected readonly classWords = CLASS_WORDS;
  protected readonly marks = CONFIDENCE_MARKS;

  /** The one tapped, as long as the search still finds it; else the nearest. */
  protected readonly chosenId = linkedSignal<readonly { readonly id: string }[], string | null>({
    source: this.found,
    computation: (found, before) =>
      found.find((m) => m.id === before?.value)?.id ?? found[0]?.id ?? before?.value ?? null,
  });
  protected readonly pin = linkedSignal<string | null, string | null>({
    source: this.chosenId,
    computation: () => null,
  });

  private readonly errands = this.store.selectSignal(deviceFeature.selectErrands);
  /** A photo of this machine is on this device, and no server has it yet. */
  protected readonly photoWaits = computed(() =>
    this.errands().some(
      (errand) => errand.kind === 'photo' && errand.modelId === this.chosenId() && errand.why === null,
    ),
  );

  private readonly chosen = loaded<string, AtlasEntry | null>(
    () => this.chosenId() ?? undefined,
    (modelId) => this.finder.entry(modelId),
    null,
  );
  /** Never the entry of a machine that was left: what is done here is done to the chosen one. */
  protected readonly entry = computed(() => {
    const entry = this.chosen.value();
    return entry?.machine.id === this.chosenId() ? { ...entry, machine: inWords(entry.machine) } : null;
  });
  protected readonly problem = computed(() => this.chosen.problem() ?? this.search.problem());

  protected confirm(): void {
    const modelId = this.chosenId();
    if (modelId) this.chosen.change(this.api.confirmEntry(modelId, this.crewId()));
  }

  /** A photo that no server takes now waits on this device. */
  protected sendPhoto(photo: File): void {
    const modelId = this.chosenId();
    if (!modelId) return;
    const sent = defer(() => this.photos.send(modelId, this.crewId(), photo));
    this.chosen.change(sent.pipe(filter((entry) => entry !== null)));
  }

  protected async correct(): Promise<void> {
    const entry = this.entry();
    if (!entry) return;
    const dialog = this.modals.open(EntryEditor, { ariaLabelledBy: 'entry-editor-title', size: 'xl' });
    (dialog.componentInstance as EntryEditor).draft.set(entry.machine);
    const edited = (await dialog.result.catch(() => null)) as EditedEntry | null;
    if (!edited) return;
    const { machine, note } = edited;
    this.chosen.change(this.api.correctEntry(machine, this.crewId(), note, entry.revision));
  }

  protected async importFile(): Promise<void> {
    await importInto(this.modals, { name: T.importName, address: '/api/models' });
    this.search.reload();
  }
}
