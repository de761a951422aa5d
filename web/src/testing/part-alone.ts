import { provideZonelessChangeDetection, type Type } from '@angular/core';
import { type ComponentFixture, TestBed } from '@angular/core/testing';
import type { CrewMember } from '@voltrek/contracts';
import { provideState, provideStore, Store } from '@ngrx/store';
import { Api } from '../app/shared/data/api';
import { crewCopy } from '../app/shared/data/crew';
import { SessionActions, sessionFeature } from '../app/shared/data/session';

/** A part of a page by itself, asking this server, and in whose hands it is. */
export function partAlone<T>(
  part: Type<T>,
  api: Partial<Record<keyof Api, unknown>>,
  hands?: { readonly crew: readonly CrewMember[]; readonly who: string },
): { readonly fixture: ComponentFixture<T>; readonly root: HTMLElement; readonly store: Store } {
  TestBed.configureTestingModule({
    providers: [
      provideZonelessChangeDetection(),
      provideStore(),
      provideState(crewCopy),
      provideState(sessionFeature),
      { provide: Api, useValue: api },
    ],
  });
  const store = TestBed.inject<Store>(Store);
  if (hands) {
    store.dispatch(crewCopy.changed(hands.crew));
    store.dispatch(SessionActions.crewChosen({ crewId: hands.who }));
  }
  const fixture = TestBed.createComponent(part);
  return { fixture, root: fixture.nativeElement as HTMLElement, store };
}
