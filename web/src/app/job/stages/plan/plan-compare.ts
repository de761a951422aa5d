import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { fixed } from '@words/numbers';
import type { Odds } from '@voltrek/core/belief';
import { inHundred } from '@words/figures';
import { LIMIT_WORDS } from '@words/words';
import type { OptionRow } from './option-rows';
import { PLAN_COMPARE as T } from '@words/screens/job-stages-plan';

interface Line {
  readonly name: string;
  readonly left: string;
  readonly right: string;
}

/** Two options side by side, figure by figure. */
@Component({
  selector: 'vt-plan-compare',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <table>
      <caption class="visually-hidden">
        {{
          t.title
        }}
      </caption>
      <thead>
        <tr>
          <td></td>
          <th scope="col">{{ left().name }}</th>
          <th scope="col">
            <label>
              <span class="visually-hidden">{{ t.compareWith }}</span>
              <select
                class="field"
                [value]="right()?.ranked?.option?.id ?? ''"
                #pick
                (change)="picked.emit(pick.value)"
              >
                @for (row of others(); track row.ranked.option.id) {
                  <option
                    [value]="row.ranked.option.id"
                    [selected]="row.ranked.option.id === right()?.ranked?.option?.id"
                  >
                    {{ row.name }}
                  </option>
                }
              </select>
            </label>
          </th>
        </tr>
      </thead>
      <tbody>
        @for (line of lines(); track line.name) {
          <tr>
            <th scope="row" class="dim">{{ line.name }}</th>
            <td>{{ line.left }}</td>
            <td>{{ line.right }}</td>
          </tr>
        }
      </tbody>
    </table>
  `,
  styles: `
    table {
      width: 100%;
      border-collapse: collapse;
      font-size: var(--text-s);
    }
    th,
    td {
      padding: 9px 6px;
      border-bottom: 1px solid var(--line);
      text-align: left;
      vertical-align: middle;
    }
    td {
      font-weight: 700;
    }
    thead th {
      width: 38%;
    }
    tbody th {
      font-weight: 500;
    }
    select {
      font-weight: 700;
      padding: 6px;
    }
  `,
})
export class PlanCompare {
  protected readonly t = T;

  readonly left = input.required<OptionRow>();
  readonly right = input.required<OptionRow | null>();
  readonly others = input.required<readonly OptionRow[]>();
  readonly odds = input.required<Readonly<Record<string, Odds>>>();
  readonly picked = output<string>();

  protected readonly lines = computed((): Line[] => {
    const left = this.left();
    const right = this.right();
    const line = (name: string, of: (row: OptionRow) => string): Line => ({
      name,
      left: of(left),
      right: right ? of(right) : '',
    });
    const crank = (row: OptionRow, show: (c: NonNullable<OptionRow['ranked']['crank']>) => string): string =>
      row.ranked.crank ? show(row.ranked.crank) : '-';
    return [
      line(T.oddsOfAStart, (row) => {
        const odds = this.odds()[row.ranked.option.id];
        return odds ? inHundred(odds.start) : '-';
      }),
      line('outlook', (row) => row.outlook),
      line(T.atTheStarter, (row) => crank(row, (c) => `${fixed(c.starterVolts, 1)} V`)),
      line('speed', (row) =>
        crank(row, (c) => T.ofRpm({ rpm: fixed(c.rpm), neededRpm: fixed(c.neededRpm) })),
      ),
      line(T.starterDraws, (row) => crank(row, (c) => `${fixed(c.starterAmps)} A`)),
      line(T.helpGives, (row) => crank(row, (c) => `${fixed(c.sourceAmps)} A`)),
      line(T.lostInLeads, (row) => crank(row, (c) => `${fixed(c.leadLossVolts, 2)} V`)),
      line(T.wakeVolts, (row) => (row.ranked.wake ? `${fixed(row.ranked.wake.postVolts, 2)} V` : '-')),
      line(T.chargesFirst, (row) =>
        row.ranked.chargeMinutes > 0 ? T.min({ chargeMinutes: row.ranked.chargeMinutes }) : 'no',
      ),
      line(T.heldBackBy, (row) => LIMIT_WORDS[row.ranked.limitedBy]),
    ].filter(({ left: l, right: r }) => l !== '-' || (r !== '-' && r !== ''));
  });
}
