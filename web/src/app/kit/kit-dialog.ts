import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { KIT_KINDS, type KitEntry, parseKitEntry, ValidationError } from '@voltrek/contracts';
import type { KitItem } from '@voltrek/core/sources';
import { NgbActiveModal } from '@ng-bootstrap/ng-bootstrap/modal';
import { FormFields, type FormValues } from '../shared/ui/form-fields';
import { entryOf, fieldsOf, usualOf, valuesOf } from './kit-fields';
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
      <vt-form-fields [fields]="fields()" [values]="values()" (typed)="values.set($event)" />
      @if (fault(); as text) {
        <p class="problem" role="alert">{{ text }}</p>
      }
      <div class="keys">
        <button type="submit" class="key strong" [disabled]="fault() !== null">
          {{ item() ? t.keepItSo : t.addIt }}
        </button>
        <button type="button" class="key" (click)="modal.dismiss()">{{ t.leaveIt }}</button>
        @if (item()) {
          <button type="button" class="key retire" (click)="modal.close('retire')">
            {{ t.takeItOffTheVan }}
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
  protected readonly values = signal<FormValues>(usualOf('lead-set'));
  protected readonly fields = computed(() => fieldsOf(this.kind()));
  private readonly checked = computed<{ entry: KitEntry | null; fault: string | null }>(() => {
    try {
      return { entry: parseKitEntry(entryOf(this.kind(), this.values())), fault: null };
    } catch (error) {
      if (!(error instanceof ValidationError)) throw error;
      return { entry: null, fault: this.worded(error) };
    }
  });
  protected readonly fault = computed(() => this.checked().fault);

  /** The first fault, by the label of its field. */
  private worded(error: ValidationError): string {
    const [first = error] = error.inner;
    const field = this.fields().find(({ key }) => key === first.path);
    return field ? first.message.replace(field.key, field.label) : first.message;
  }

  /** Opens on a piece that is carried. */
  open(item: KitItem): void {
    this.item.set(item);
    this.kind.set(item.kind);
    this.values.set(valuesOf(item));
  }

  protected choose(kind: KitItem['kind']): void {
    this.kind.set(kind);
    this.values.set(usualOf(kind));
  }

  protected keep(): void {
    const { entry } = this.checked();
    if (entry) this.modal.close(entry);
  }
}
