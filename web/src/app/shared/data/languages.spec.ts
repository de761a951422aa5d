import { TestBed } from '@angular/core/testing';
import { TranslocoService } from '@jsverse/transloco';
import { areLoaded, showMessages } from '@words/messages-of';
import { language } from '../model/language';
import { Languages } from './languages';

describe('the languages', () => {
  let languages: Languages;

  beforeEach(async () => {
    TestBed.configureTestingModule({
      // The other specs go on with the texts they began with.
      providers: [
        {
          provide: TranslocoService,
          useValue: jasmine.createSpyObj('transloco', ['setTranslation', 'setActiveLang']),
        },
      ],
    });
    languages = TestBed.inject(Languages);
    showMessages({});
    await languages.show('en');
  });

  afterEach(async () => {
    await languages.show('en');
    await languages.whole();
  });

  it('let no second page open before its messages are there', async () => {
    void languages.whole();
    await languages.whole();

    expect(areLoaded('kitFields')).toBeTrue();
  });

  it('let a page open in the language that was asked for last', async () => {
    const page = languages.whole();
    void languages.show('de');
    await page;

    expect(language()).toBe('de');
    expect(areLoaded('kitFields')).toBeTrue();
  });

  it('stay with the language that was asked for last', async () => {
    const german = languages.show('de');
    await languages.show('en');
    await german;

    expect(language()).toBe('en');
  });
});
