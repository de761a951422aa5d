import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { provideState, provideStore, Store } from '@ngrx/store';
import { SettingsActions, settingsFeature } from '../data/settings';
import { Cues } from './cues';
import { Voice } from './voice';

describe('the voice', () => {
  let said: { readonly text: string; readonly lang: string }[];
  let broken: number;
  const speak = (value: boolean): void => {
    TestBed.inject(Store).dispatch(SettingsActions.set({ key: 'speaks', value }));
    TestBed.tick();
  };

  beforeEach(() => {
    said = [];
    broken = 0;
    spyOn(speechSynthesis, 'speak').and.callFake(({ text, lang }) => void said.push({ text, lang }));
    spyOn(speechSynthesis, 'cancel').and.callFake(() => void broken++);
    TestBed.configureTestingModule({
      providers: [provideZonelessChangeDetection(), provideStore(), provideState(settingsFeature)],
    });
  });

  it('is silent until the device is set to it, and breaks off with the setting', () => {
    const voice = TestBed.inject(Voice);
    voice.say('Red clamp on');
    expect(said).toEqual([]);
    speak(true);
    voice.say('Red on battery +', '', 'At -4 °C tug it.');
    expect(said).toEqual([{ text: 'Red on battery plus. At -4 °C tug it.', lang: 'en' }]);
    const before = broken;
    speak(false);
    expect(broken).toBe(before + 1);
    voice.say('Black clamp on');
    expect(said.length).toBe(1);
  });

  it('says that a wait is over and that a try must end, beside the tones', () => {
    speak(true);
    const cues = TestBed.inject(Cues);
    cues.give('over');
    cues.give('stop');
    expect(said.map(({ text }) => text)).toEqual(['Time is up.', 'Let go of the key.']);
  });
});
