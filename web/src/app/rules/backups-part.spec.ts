import { HttpErrorResponse } from '@angular/common/http';
import type { Backup, BackupState } from '@voltrek/contracts';
import { type Observable, of, throwError } from 'rxjs';
import { partAlone } from '../../testing/part-alone';
import { BackupsPart } from './backups-part';

const HOUR_MS = 3_600_000;
const backup = (hoursOld: number): Backup => ({
  ...{ name: `${hoursOld}.tgz`, sha256: '', reason: 'by-time', jobs: 7, events: 300, broken: 0 },
  bytes: 8_400_000,
  at: new Date(Date.now() - hoursOld * HOUR_MS).toISOString(),
  checkedAt: new Date(Date.now() - hoursOld * HOUR_MS).toISOString(),
});
const state = (more: Partial<BackupState>): BackupState => ({
  ...{ backups: [], isUnderWay: false, problem: null },
  ...more,
});

describe('the backups of a house', () => {
  async function show(api: Record<'backups' | 'backUp', () => Observable<unknown>>) {
    const { fixture, root } = partAlone(BackupsPart, api);
    await fixture.whenStable();
    const tap = async (): Promise<void> => {
      root.querySelector('button')!.click();
      await fixture.whenStable();
    };
    return { root, tap };
  }

  it('are told with what they hold, and that one is late', async () => {
    const { root, tap } = await show({
      backups: () => of(state({ backups: [backup(13)] })),
      backUp: () => of(state({ backups: [backup(0), backup(13)] })),
    });
    expect(root.textContent).toMatch(/by the clock.*300 events of 7 jobs, 8\.4 MB/s);
    expect(root.textContent).toContain('older than half a day');
    await tap();
    expect(root.querySelectorAll('li').length).toBe(2);
    expect(root.textContent).not.toContain('older than half a day');
  });

  it('tell why one was not made, by the clock or by hand, and keep those that stand', async () => {
    const { root, tap } = await show({
      backups: () => of(state({ backups: [backup(1)], problem: 'no room on the disk' })),
      backUp: () =>
        throwError(
          () =>
            new HttpErrorResponse({
              status: 507,
              error: { status: 507, detail: 'No backup was made: full' },
            }),
        ),
    });
    expect(root.textContent).toContain('The last backup was not made: no room on the disk');
    await tap();
    expect(root.querySelector('[role=alert]')!.textContent).toContain('No backup was made: full');
    expect(root.querySelectorAll('li').length).toBe(1);
    expect(root.querySelector('button')!.disabled).toBeFalse();
  });
});
