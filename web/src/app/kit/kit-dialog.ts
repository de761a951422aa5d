import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { KIT_KINDS, parseKitEntry } from '@voltrek/contracts';
import type { KitItem } from '@voltrek/core/sources';
import { NgbActiveModal } from '@ng-bootstrap/ng-bootstrap/modal';
import { faultsOf, formOf, keptOf } from '../shared/ui/checked-form';
import { FormFields } from '../shared/ui/form-fields';
import { entryOf, fieldsOf, kitFaults, usualOf, valuesOf } from './kit-fields';
import { KIT_KIND_WORDS } from '@words/kit-words';
import { Choices } from '../shared/ui/choices';
import { KIT_DIALOG as T } from '@words/screens/kit';

/** A piece of kit, new or changed, by the fields of its kind. Closes with the checked piece, or with 'retire'. */
@Component({
  selector: 'vt-kit-dialog',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Choices, FormFields],
  template: `
    <form class="sheet" (submit)="$event.preventDefault(); keep()">
      <h1 id="kit-title">{{ item() ? item()!.name : t.newKit }}</h1>
      @if (!item()) {
        <div class="keys" role="radiogroup" [attr.aria-label]="t.kind">
          @for (k of kinds; track k) {
            <button
              type="button"
              class="key"
              role="radio"
              [attr.aria-checked]="k === kind()"
              (click)="choose(k)"
            >
              {{ words[k] }}
            </button>
          }
        </div>
      }
      <vt-form-fields [fields]="fields()" [form]="form()" />
      @if (faults(form())['']; as text) {
        <p class="problem" role="alert">{{ text }}</p>
      }
      <div class="keys">
        <button type="submit" class="key strong" [disabled]="form().invalid">
          {{ item() ? t.keepItSo : t.addIt }}
        </button>
        <button type="button" class="key" (click)="modal.dismiss()">{{ t.leaveIt }}</button>
        @if (item()) {
          <button type="button" class="key retire" (click)="modal.close('retire')">
            {{ t.retire }}
          </button>
        }
      </div>
    </form>
  `,
  styles: `
    .sheet {
      gap: 14px;
    }
    .retire {
      margin-left: auto;
    }
  `,
})
export class KitDialog {
  protected readonly t = T;

  protected readonly modal = inject(NgbActiveModal);
  protected readonly kinds = KIT_KINDS;
  protected readonly words = KIT_KIND_WORDS;
  readonly item = signal<KitItem | null>(null);
  protected readonly kind = signal<KitItem['kind']>('lead-set');
  protected readonly fields = computed(() => fieldsOf(this.kind()));
  /** Begins anew with each kind: as the piece is, or as the usual one of its kind. */
  protected readonly form = computed(() => {
    const [kind, item, fields] = [this.kind(), this.item(), this.fields()];
    const begin = item ? valuesOf(item) : usualOf(kind);
    return formOf(fields, begin, (values) => kitFaults(kind, values));
  });
  protected readonly faults = faultsOf;

  /** Opens on a piece that is carried. */
  open(item: KitItem): void {
    this.item.set(item);
    this.kind.set(item.kind);
  }

  protected choose(kind: KitItem['kind']): void {
    this.kind.set(kind);
  }

  protected keep(): void {
    const form = this.form();
    if (form.invalid) return;
    this.modal.close(parseKitEntry(entryOf(this.kind(), keptOf(this.fields(), form))));
  }
}
