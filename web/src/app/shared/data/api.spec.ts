import { HttpEventType, provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { TimeoutError } from 'rxjs';
import { Api } from './api';

describe('a picture on its way', () => {
  let answers: unknown[];
  let errors: unknown[];

  beforeEach(() => {
    answers = [];
    errors = [];
    TestBed.configureTestingModule({
      providers: [provideZonelessChangeDetection(), provideHttpClient(), provideHttpClientTesting()],
    });
    jasmine.clock().install().mockDate();
    TestBed.inject(Api)
      .addPhoto('car', 'crew-1', new Blob(['12345']), 'p1')
      .subscribe({ next: (entry) => answers.push(entry), error: (error) => errors.push(error) });
  });
  afterEach(() => jasmine.clock().uninstall());

  it('may take minutes through a thin line, as long as it moves', () => {
    const sent = TestBed.inject(HttpTestingController).expectOne('/api/models/car/photos');
    for (let loaded = 1; loaded <= 5; loaded++) {
      jasmine.clock().tick(50_000);
      sent.event({ type: HttpEventType.UploadProgress, loaded, total: 5 });
    }
    sent.flush({ revision: 2 });
    expect(errors).toEqual([]);
    expect(answers).toEqual([{ revision: 2 }]);
  });

  it('is given up once it stands still', () => {
    const sent = TestBed.inject(HttpTestingController).expectOne('/api/models/car/photos');
    sent.event({ type: HttpEventType.UploadProgress, loaded: 1, total: 5 });
    jasmine.clock().tick(61_000);
    expect(errors).toEqual([jasmine.any(TimeoutError)]);
    expect(sent.cancelled).toBeTrue();
  });
});
