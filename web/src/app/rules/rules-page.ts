import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import {
  HOUSE_RULE_KEYS,
  type HouseRuleKey,
  isHouseRule,
  RULES,
  ruleFault,
  type RuleLimit,
  type School,
} from '@voltrek/core/rules';
import type { RuleSetting } from '@voltrek/contracts';
import { Store } from '@ngrx/store';
import { rulesCopy } from '../shared/data/rules';
import { crewCopy } from '../shared/data/crew';
import { sessionFeature } from '../shared/data/session';
import { typedFigure } from '../shared/ui/typed-figure';
import { nameOf } from '@words/figures';
import { RULE_QUESTIONS, RULE_REASONS, ruleUnit, ruleValue, SCHOOL_WORDS } from '@words/rule-words';
import { BackupsPart } from './backups-part';
import { Choices } from '../shared/ui/choices';
import { When } from '../shared/ui/when';
import { RULES_PAGE as T } from '@words/screens/rules';
import { faultText } from '@words/fault-words';
import { faultAt } from '@voltrek/contracts';

interface Row {
  readonly key: HouseRuleKey;
  readonly question: string;
  readonly value: string;
  readonly unit: string;
  readonly reason: string;
  readonly schools: readonly School[] | null;
  readonly usual: string;
  readonly isUsual: boolean;
  readonly fault: string | null;
}

/** The questions on which practitioners differ: each with its schools or figure, our default and why. */
@Component({
  selector: 'vt-rules-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [BackupsPart, Choices, When],
  host: { class: 'page' },
  template: `
    <header>
      <h1>{{ t.houseRules }}</h1>
      <span class="dim">{{ t.subtitle }}</span>
    </header>
    @if (problem(); as text) {
      <p class="problem" role="alert">{{ text }}</p>
    }
    <ul class="ruled">
      @for (row of rows(); track row.key) {
        <li>
          <div>
            <strong [id]="row.key">{{ row.question }}</strong>
            <span class="dim why"
              >{{ row.isUsual ? t.ourDefault : t.defaultWord + row.usual + ': ' }}{{ row.reason }}</span
            >
          </div>
          @if (row.schools; as schools) {
            <div class="keys" role="radiogroup" [attr.aria-labelledby]="row.key">
              @for (school of schools; track school) {
                <button
                  type="button"
                  class="key"
                  role="radio"
                  [attr.aria-checked]="school === row.value"
                  (click)="set(row.key, school)"
                >
                  {{ schoolWords[school] }}
                </button>
              }
            </div>
          } @else {
            <div class="figure-field">
              <input
                class="field"
                inputmode="decimal"
                autocomplete="off"
                [attr.aria-labelledby]="row.key"
                [attr.aria-invalid]="row.fault !== null"
                [value]="row.value"
                #typed
                (change)="type(row.key, typed.value)"
              />
              <span class="dim">{{ row.unit }}</span>
              @if (row.fault; as why) {
                <span class="fault" role="alert">{{ why }}</span>
              }
            </div>
          }
        </li>
      }
    </ul>
    <vt-backups-part />
    @if (settings().length) {
      <h2>{{ t.setBefore }}</h2>
      <ul class="ruled past">
        @for (s of settings(); track $index) {
          <li>
            <span>{{ settingText(s) }}</span>
            <span class="dim">{{ nameOf(s.by) }}, {{ s.at | when: 'dayTime' }}</span>
          </li>
        }
      </ul>
    }
  `,
  styles: `
    @use 'media';

    li {
      display: grid;
      grid-template-columns: minmax(0, 1fr) minmax(0, 1.1fr);
      align-items: center;
      gap: 6px 20px;
      padding: 9px 0;
    }
    .why {
      display: block;
      margin: 0;
      font-size: var(--text-xs);
    }
    .figure-field {
      display: grid;
      grid-template-columns: 120px auto;
      align-items: center;
      justify-content: start;
      gap: 4px 10px;
    }
    .field {
      text-align: right;
      font-weight: 700;
    }
    .fault {
      grid-column: 1 / -1;
      color: var(--bad);
      font-weight: 600;
    }
    h2 {
      margin: 26px 0 8px;
    }
    .past li {
      grid-template-columns: 1fr auto;
    }
    @include media.phone {
      li {
        grid-template-columns: 1fr;
      }
    }
  `,
})
export class RulesPageView {
  protected readonly t = T;

  private readonly store = inject(Store);
  private readonly page = this.store.selectSignal(rulesCopy.selectCopy);
  private readonly crew = this.store.selectSignal(crewCopy.selectCopy);
  private readonly crewId = this.store.selectSignal(sessionFeature.selectCrewId);
  /** Text that is no allowed figure: kept in its field, never sent. */
  private readonly rejected = signal<{ key: HouseRuleKey; text: string; why: string } | null>(null);

  protected readonly problem = this.store.selectSignal(rulesCopy.selectProblem);
  protected readonly schoolWords = SCHOOL_WORDS;
  protected readonly settings = computed(() => this.page()?.settings ?? []);
  protected readonly rows = computed(() => {
    const page = this.page();
    return page ? HOUSE_RULE_KEYS.map((key) => this.rowOf(key, String(page.rules[key]))) : [];
  });

  constructor() {
    this.store.dispatch(rulesCopy.requested());
  }

  private rowOf(key: HouseRuleKey, value: string): Row {
    const unit = ruleUnit(key);
    const { value: usual } = RULES[key];
    const limit: RuleLimit = RULES[key].limit;
    const rejected = this.rejected();
    const isRejected = rejected?.key === key;
    return {
      key,
      question: RULE_QUESTIONS[key],
      value: isRejected ? rejected.text : value,
      unit,
      reason: RULE_REASONS[key],
      schools: limit.kind === 'school' ? limit.schools : null,
      usual: ruleValue(key, usual),
      isUsual: value === String(usual),
      fault: isRejected ? rejected.why : null,
    };
  }

  /** The rule and its new value; the key of a rule that no longer exists. */
  protected settingText({ key, value }: RuleSetting): string {
    return isHouseRule(key) ? `${RULE_QUESTIONS[key]}: ${ruleValue(key, value)}` : `${key}: ${value}`;
  }

  protected nameOf(crewId: string): string {
    return nameOf(this.crew(), crewId);
  }

  protected set(key: HouseRuleKey, value: string | number): void {
    this.store.dispatch(rulesCopy.changeSent({ key, value, by: this.crewId() }));
  }

  protected type(key: HouseRuleKey, text: string): void {
    const value = typedFigure(text);
    const fault = ruleFault(key, value);
    const why = fault && faultText(faultAt('value', fault.code, fault.params), RULE_QUESTIONS[key]);
    this.rejected.set(why ? { key, text, why } : null);
    if (!why) this.set(key, value);
  }
}
