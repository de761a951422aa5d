import { NgTemplateOutlet } from '@angular/common';
import {
  ChangeDetectionStrategy,
  Component,
  contentChild,
  Directive,
  inject,
  input,
  TemplateRef,
} from '@angular/core';
import { RouterLink } from '@angular/router';

interface RowContext<T> {
  readonly $implicit: T;
}

/** The cells of a record's row: `<ng-template [vtRow]="jobs()" let-job>`. The list gives the record its type. */
@Directive({ selector: 'ng-template[vtRow]' })
export class RecordRow<T> {
  readonly vtRow = input.required<readonly T[]>();
  readonly template = inject<TemplateRef<RowContext<T>>>(TemplateRef);

  static ngTemplateContextGuard<T>(_: RecordRow<T>, _context: unknown): _context is RowContext<T> {
    return true;
  }
}

/** The acts on a record, beside its link: `<ng-template [vtRowActs]="due()" let-f>`. */
@Directive({ selector: 'ng-template[vtRowActs]' })
export class RecordActs<T> {
  readonly vtRowActs = input.required<readonly T[]>();
  readonly template = inject<TemplateRef<RowContext<T>>>(TemplateRef);

  static ngTemplateContextGuard<T>(_: RecordActs<T>, _context: unknown): _context is RowContext<T> {
    return true;
  }
}

/**
 * A ruled list of records, each a link to its page. The page sets `--columns` for the cells of a row, and again for a phone.
 *
 * @example
 * <vt-record-list [link]="linkOf" [none]="t.noVehicles">
 *   <ng-template [vtRow]="vehicles()" let-v><strong>{{ v.plate }}</strong></ng-template>
 * </vt-record-list>
 */
@Component({
  selector: 'vt-record-list',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [NgTemplateOutlet, RouterLink],
  template: `
    @let records = row().vtRow();
    <ul class="ruled">
      @for (record of records; track keyOf()(record)) {
        <li>
          <a [routerLink]="link()(record)">
            <ng-container
              [ngTemplateOutlet]="row().template"
              [ngTemplateOutletContext]="{ $implicit: record }"
            />
          </a>
          @if (acts(); as a) {
            <ng-container [ngTemplateOutlet]="a.template" [ngTemplateOutletContext]="{ $implicit: record }" />
          }
        </li>
      } @empty {
        @if (none(); as text) {
          <li class="dim none">{{ text }}</li>
        }
      }
    </ul>
  `,
  styles: `
    @use 'media';

    :host {
      display: block;
    }
    li {
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      gap: 0 10px;
      padding: 2px 0;
    }
    a {
      flex: 1 1 0;
      display: grid;
      grid-template-columns: var(--columns);
      gap: 2px 16px;
      align-items: center;
      min-width: 0;
      min-height: 48px;
      padding: 2px 0;
      color: inherit;
      text-decoration: none;
    }
    a:hover {
      background: var(--sheet);
    }
    .none {
      padding: 20px 0;
    }
    @include media.phone {
      a {
        flex-basis: 100%;
        gap: 2px 12px;
      }
    }
  `,
})
export class RecordList<T> {
  /** The route of a record. */
  readonly link = input.required<(record: T) => readonly string[]>();
  readonly keyOf = input<(record: T) => unknown>((record) => (record as { readonly id?: unknown }).id);
  /** The words of an empty list; null while it is not known to be empty. */
  readonly none = input<string | null>(null);

  protected readonly row = contentChild.required<RecordRow<T>>(RecordRow);
  protected readonly acts = contentChild<RecordActs<T>>(RecordActs);
}
