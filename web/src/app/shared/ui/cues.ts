import { inject, Injectable } from '@angular/core';
import { Store } from '@ngrx/store';
import { settingsFeature } from '../data/settings';
import { SPOKEN as T } from '@words/screens/shell';
import { Voice } from './voice';

/** Cues without a look: a wait or a rest is over, or a try has lasted long enough. */
export type Cue = 'over' | 'stop';

/** Our own tones, Hz and seconds: two rising steps for what is over, three short low ones for stop. */
const TONES: Readonly<Record<Cue, readonly (readonly [hertz: number, seconds: number])[]>> = {
  over: [
    [660, 0.14],
    [880, 0.22],
  ],
  stop: [
    [330, 0.12],
    [330, 0.12],
    [330, 0.3],
  ],
};
const BUZZES: Readonly<Record<Cue, readonly number[]>> = {
  over: [120, 60, 240],
  stop: [200, 80, 200, 80, 400],
};
const GAP_SECONDS = 0.05;
const LOUDNESS = 0.25;

/** Felt, heard and said, as far as the device can and its settings allow. A browser that can neither stays still. */
@Injectable({ providedIn: 'root' })
export class Cues {
  private readonly settings = inject(Store).selectSignal(settingsFeature.selectSettingsState);
  private readonly voice = inject(Voice);
  private audio: AudioContext | undefined;

  give(cue: Cue): void {
    const { tones, vibrates } = this.settings();
    if (vibrates && 'vibrate' in navigator) navigator.vibrate([...BUZZES[cue]]);
    if (tones && 'AudioContext' in globalThis) this.sound(cue);
    this.voice.say(T[cue]);
  }

  private sound(cue: Cue): void {
    this.audio ??= new AudioContext();
    const { audio } = this;
    // Held back until somebody has touched the page, which for whoever waits here is long ago.
    void audio.resume();
    let at = audio.currentTime;
    for (const [hertz, seconds] of TONES[cue]) {
      const tone = new OscillatorNode(audio, { frequency: hertz, type: 'triangle' });
      const level = new GainNode(audio, { gain: 0 });
      level.gain.setTargetAtTime(LOUDNESS, at, 0.01);
      level.gain.setTargetAtTime(0, at + seconds - 0.04, 0.01);
      tone.connect(level).connect(audio.destination);
      tone.start(at);
      tone.stop(at + seconds);
      at += seconds + GAP_SECONDS;
    }
  }
}
