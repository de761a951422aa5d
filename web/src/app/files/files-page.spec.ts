import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { NgbModal } from '@ng-bootstrap/ng-bootstrap/modal';
import { type Action, provideStore, ScannedActionsSubject } from '@ngrx/store';
import { HOUSE_FILE_WORDS, HOUSE_FILES } from '@words/file-words';
import { crewCopy } from '../shared/data/crew';
import { kitCopy } from '../shared/data/kit';
import { FilesPage } from './files-page';

describe('FilesPage', () => {
  it('offers every file of the house in and out, and asks for crew and kit again after an import', async () => {
    const opened: object[] = [];
    const modals = {
      open: () => {
        const target = { set: (file: object) => void opened.push(file) };
        return { componentInstance: { target }, result: Promise.resolve() };
      },
    };
    TestBed.configureTestingModule({
      providers: [provideZonelessChangeDetection(), provideStore(), { provide: NgbModal, useValue: modals }],
    });
    const said: Action[] = [];
    TestBed.inject(ScannedActionsSubject).subscribe((action) => said.push(action));
    const fixture = TestBed.createComponent(FilesPage);
    await fixture.whenStable();
    const root = fixture.nativeElement as HTMLElement;
    const rows = [...root.querySelectorAll('li')];
    expect(rows.length).toBe(HOUSE_FILES.length);
    for (const [i, { address, id }] of HOUSE_FILES.entries()) {
      const links = [...rows[i]!.querySelectorAll('a')].map((a) => a.getAttribute('href'));
      expect(links).toEqual([`${address}/export.json`, `${address}/export.csv`, `${address}/schema.json`]);
      expect(rows[i]!.querySelector('button')!.getAttribute('aria-label')).toContain(
        HOUSE_FILE_WORDS[id].name,
      );
    }
    rows[0]!.querySelector('button')!.click();
    await new Promise((done) => setTimeout(done));
    await fixture.whenStable();
    expect(opened).toEqual([{ name: HOUSE_FILE_WORDS.atlas.name, address: HOUSE_FILES[0]!.address }]);
    expect(said.map(({ type }) => type)).toEqual([crewCopy.requested.type, kitCopy.requested.type]);
  });
});
