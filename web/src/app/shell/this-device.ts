import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { NgbActiveModal } from '@ng-bootstrap/ng-bootstrap/modal';
import { Store } from '@ngrx/store';
import {
  type DeviceSettings,
  SETTING_KEYS,
  type SettingKey,
  USUAL_SETTINGS,
} from '../shared/model/setting-table';
import { LANGUAGE_SETTINGS, type LanguageSetting } from '../shared/model/language';
import { SettingsActions, settingsFeature } from '../shared/data/settings';
import { hasLightSensor } from '../shared/data/light-by-sensor';
import { Choices } from '../shared/ui/choices';
import { Cues } from '../shared/ui/cues';
import { hasVoice } from '../shared/ui/voice';
import { LANGUAGE_WORDS, SETTING_WORDS } from '@words/setting-words';
import { THIS_DEVICE as T } from '@words/screens/shell';

/** Settings that are on or off: all there are. */
type Switch = { [K in SettingKey]: DeviceSettings[K] extends boolean ? K : never }[SettingKey];
const SWITCHES = SETTING_KEYS.filter((key): key is Switch => typeof USUAL_SETTINGS[key] === 'boolean');

/** Settings that some devices can do nothing with. */
const CAN: Readonly<Partial<Record<Switch, () => boolean>>> = {
  lightBySensor: hasLightSensor,
  speaks: hasVoice,
};

/** How this device is set. */
@Component({
  selector: 'vt-this-device',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Choices],
  template: `
    <div class="sheet">
      <h1 id="device-title">{{ t.thisDevice }}</h1>
      <div class="language" role="radiogroup" [attr.aria-label]="words.language.name">
        <span>{{ words.language.name }}</span>
        @for (one of languages; track one) {
          <button
            type="button"
            role="radio"
            class="key"
            [attr.aria-checked]="settings().language === one"
            [attr.lang]="one === 'browser' ? null : one"
            (click)="speak(one)"
          >
            {{ languageWords[one] }}
          </button>
        }
      </div>
      <ul class="ruled">
        @for (row of rows(); track row.key) {
          <li>
            <button
              type="button"
              role="switch"
              class="key"
              [attr.aria-checked]="settings()[row.key]"
              (click)="set(row.key, !settings()[row.key])"
            >
              <span>{{ row.name }}</span>
              <strong>{{ settings()[row.key] ? t.on : t.off }}</strong>
              <span class="dim">{{ row.says }}</span>
            </button>
          </li>
        }
      </ul>
      <div class="keys">
        <button type="button" class="key" (click)="cues.give('over')">{{ t.tryTheTone }}</button>
        <button type="button" class="key" (click)="modal.dismiss()">{{ t.close }}</button>
      </div>
    </div>
  `,
  styles: `
    .language {
      display: grid;
      grid-template-columns: auto repeat(3, 1fr);
      align-items: center;
      gap: 6px 10px;
      margin-bottom: 10px;
    }
    ul {
      display: grid;
      gap: 6px;
      border: 0;
    }
    li {
      border: 0;
    }
    li .key {
      display: grid;
      grid-template-columns: 1fr auto;
      gap: 0 14px;
      width: 100%;
      min-height: 56px;
      padding: 6px 14px;
      text-align: left;
    }
    li .dim {
      grid-column: 1 / -1;
      margin: 0;
      color: inherit;
      font-size: var(--text-xs);
      font-weight: 400;
    }
    [aria-checked='true'] {
      border-color: var(--ink);
      box-shadow: inset 7px 0 0 var(--lamp);
    }
  `,
})
export class ThisDevice {
  protected readonly t = T;

  private readonly store = inject(Store);
  protected readonly modal = inject(NgbActiveModal);
  protected readonly cues = inject(Cues);
  protected readonly settings = this.store.selectSignal(settingsFeature.selectSettingsState);
  /** Without what this device cannot do. */
  protected readonly rows = computed(() =>
    SWITCHES.filter((key) => CAN[key]?.() ?? true).map((key) => ({
      key,
      ...SETTING_WORDS[key],
    })),
  );
  protected readonly words = SETTING_WORDS;
  protected readonly languages = LANGUAGE_SETTINGS;
  protected readonly languageWords = LANGUAGE_WORDS;

  protected speak(value: LanguageSetting): void {
    this.store.dispatch(SettingsActions.set({ key: 'language', value }));
  }

  protected set(key: SettingKey, value: boolean): void {
    this.store.dispatch(SettingsActions.set({ key, value }));
  }
}
