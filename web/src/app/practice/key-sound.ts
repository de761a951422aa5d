import { inject, Injectable } from '@angular/core';
import type { Engine } from '@voltrek/core/engine';
import type { Happened } from '@voltrek/core/practice';
import { Store } from '@ngrx/store';
import { settingsFeature } from '../shared/data/settings';

/** One knock of a sound: when, how high and how long. */
export interface Knock {
  readonly atSeconds: number;
  readonly hertz: number;
  readonly seconds: number;
}

const TRY_SECONDS = 1.6;
/** How fast an engine idles, rpm, and how long it sounds. */
const IDLE_RPM = 850;
const IDLE_SECONDS = 0.9;
/** A solenoid that drops and pulls again, times a second. */
const CHATTER_HZ = 11;
const CHATTER_SECONDS = 1;
const THUMP: Pick<Knock, 'hertz' | 'seconds'> = { hertz: 92, seconds: 0.05 };
const CLICK: Pick<Knock, 'hertz' | 'seconds'> = { hertz: 1400, seconds: 0.012 };
/** Pistons come up on compression once in two turns each. */
const TURNS_A_COMPRESSION = 2;

/**
 * The sound of the key, by the engine: a thump for every compression at the speed that was solved, a click for a solenoid.
 *
 * @param engine null for what wakes: it makes no sound
 */
export function soundOf(key: NonNullable<Happened['key']>, engine: Engine | null): Knock[] {
  if (!engine) return [];
  const beats = (hertz: number, seconds: number, knock: typeof THUMP, from = 0): Knock[] =>
    Array.from({ length: Math.floor(hertz * seconds) }, (_, i) => ({
      ...knock,
      atSeconds: from + i / hertz,
    }));
  const compressions = (rpm: number): number => (rpm / 60) * (engine.cylinders / TURNS_A_COMPRESSION);
  switch (key.outcome) {
    case 'starts':
    case 'brisk-no-fire':
    case 'slow': {
      const turning = beats(compressions(key.point?.rpm ?? 0), TRY_SECONDS, THUMP);
      const running = { ...THUMP, hertz: 2 * THUMP.hertz };
      return key.outcome === 'starts'
        ? [...turning, ...beats(compressions(IDLE_RPM), IDLE_SECONDS, running, TRY_SECONDS)]
        : turning;
    }
    case 'rapid-click':
      return beats(CHATTER_HZ, CHATTER_SECONDS, CLICK);
    case 'one-click':
      return [{ ...CLICK, atSeconds: 0 }];
    default:
      return [];
  }
}

const LOUDNESS = 0.3;

/** Plays what the key sounds like, where this device is set to sound at all. */
@Injectable({ providedIn: 'root' })
export class KeySound {
  private readonly settings = inject(Store).selectSignal(settingsFeature.selectSettingsState);
  private audio: AudioContext | undefined;

  play(knocks: readonly Knock[]): void {
    if (knocks.length === 0 || !this.settings().tones || !('AudioContext' in globalThis)) return;
    this.audio ??= new AudioContext();
    const { audio } = this;
    void audio.resume();
    const now = audio.currentTime;
    for (const { atSeconds, hertz, seconds } of knocks) {
      const tone = new OscillatorNode(audio, { frequency: hertz, type: 'triangle' });
      const level = new GainNode(audio, { gain: 0 });
      level.gain.setTargetAtTime(LOUDNESS, now + atSeconds, 0.004);
      level.gain.setTargetAtTime(0, now + atSeconds + seconds / 2, seconds / 3);
      tone.connect(level).connect(audio.destination);
      tone.start(now + atSeconds);
      tone.stop(now + atSeconds + 3 * seconds);
    }
  }
}
