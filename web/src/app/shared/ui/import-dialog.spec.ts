import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { NgbActiveModal } from '@ng-bootstrap/ng-bootstrap/modal';
import { provideState, provideStore } from '@ngrx/store';
import type { ImportReport } from '@voltrek/contracts';
import { Subject } from 'rxjs';
import { Api } from '../data/api';
import { crewCopy } from '../data/crew';
import { sessionFeature } from '../data/session';
import { ImportDialog } from './import-dialog';

const report = (basis: number, added: string): ImportReport => ({
  ...{ applied: false, faults: [], added: [added], changed: [], same: 0, basis },
});

describe('a file that is brought in', () => {
  async function show() {
    const looked: Subject<ImportReport>[] = [];
    const applied: {
      readonly name: string;
      readonly basis: number;
      readonly answer: Subject<ImportReport>;
    }[] = [];
    const api = {
      previewImport: () => {
        looked.push(new Subject());
        return looked.at(-1)!;
      },
      importFile: (_address: string, { name }: File, _by: string, basis: number) => {
        applied.push({ name, basis, answer: new Subject() });
        return applied.at(-1)!.answer;
      },
    };
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        provideStore(),
        provideState(sessionFeature),
        provideState(crewCopy),
        { provide: NgbActiveModal, useValue: {} },
        { provide: Api, useValue: api },
      ],
    });
    const fixture = TestBed.createComponent(ImportDialog);
    const root = fixture.nativeElement as HTMLElement;
    await fixture.whenStable();
    const choose = async (name: string): Promise<void> => {
      const files = new DataTransfer();
      files.items.add(new File(['{}'], name));
      const picker = root.querySelector('input')!;
      picker.files = files.files;
      picker.dispatchEvent(new Event('change'));
      await fixture.whenStable();
    };
    const told = async (to: Subject<ImportReport> | undefined, what: ImportReport): Promise<void> => {
      to!.next(what);
      to!.complete();
      await fixture.whenStable();
    };
    const go = (): HTMLButtonElement | null => root.querySelector('.key.strong');
    return { root, fixture, looked, applied, choose, told, go };
  }

  it('is told of by itself: an answer to one that was chosen before comes to nothing', async () => {
    const { root, looked, applied, choose, told, go } = await show();
    await choose('old.json');
    await choose('new.json');
    await told(looked[0], report(1, 'Old machine'));
    expect(go()).toBeNull();
    await told(looked[1], report(2, 'New machine'));
    expect(root.textContent).toContain('New machine');
    go()!.click();
    expect(applied.map(({ name, basis }) => [name, basis])).toEqual([['new.json', 2]]);
  });

  it('is brought in once, however often that is tapped while the server takes its time', async () => {
    const { root, fixture, looked, applied, choose, told, go } = await show();
    await choose('new.json');
    await told(looked[0], report(2, 'New machine'));
    for (let i = 0; i < 3; i++) go()!.click();
    await fixture.whenStable();
    expect(applied.length).toBe(1);
    expect(go()!.disabled).toBeTrue();
    await told(applied[0]!.answer, { ...report(2, 'New machine'), applied: true });
    expect(go()).toBeNull();
    expect(root.textContent).toContain('Imported');
  });
});
