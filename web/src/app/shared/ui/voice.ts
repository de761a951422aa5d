import { computed, effect, inject, Injectable } from '@angular/core';
import { Store } from '@ngrx/store';
import { settingsFeature } from '../data/settings';
import { SPOKEN as T } from '@words/screens/shell';
import { language } from '../model/language';

/** Whether this browser can speak. */
export const hasVoice = (): boolean => 'speechSynthesis' in globalThis;

/** Reads aloud, where the device is set to it. */
@Injectable({ providedIn: 'root' })
export class Voice {
  private readonly speaks = inject(Store).selectSignal(settingsFeature.selectSpeaks);
  readonly isOn = computed(() => this.speaks() && hasVoice());

  constructor() {
    // A sentence that was begun ends with the setting.
    effect(() => {
      if (!this.isOn() && hasVoice()) speechSynthesis.cancel();
    });
  }

  /** Says it now. The sentence before is broken off: it was of a step that is over. */
  say(...sentences: readonly string[]): void {
    if (!this.isOn()) return;
    speechSynthesis.cancel();
    const said = sentences.map((one) => one.trim()).filter((one) => one !== '');
    const words = new SpeechSynthesisUtterance(readAloud(said.map(ended).join(' ')));
    words.lang = language();
    speechSynthesis.speak(words);
  }
}

/** A voice makes a pause at a full stop. */
const ended = (sentence: string): string => (/[.!?]$/.test(sentence) ? sentence : `${sentence}.`);

/** The signs of a battery's posts are words: a voice leaves out a sign. */
const readAloud = (text: string): string =>
  text.replace(/ \+(?=\W|$)/g, ` ${T.plus}`).replace(/ -(?=\W|$)/g, ` ${T.minus}`);
