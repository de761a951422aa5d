import { TestBed } from '@angular/core/testing';
import { detailOf, opened } from '../../testing/fixtures';
import { openedStore } from '../../testing/job-harness';
import { jobFeature } from '../shared/model/job-state';
import { SendPhoto } from '../shared/sync/send-photo';
import { AddPhoto } from './add-photo';

describe('AddPhoto', () => {
  async function show(sendOfJob: (...of: readonly unknown[]) => Promise<void>) {
    const store = openedStore(detailOf([opened()]), [{ provide: SendPhoto, useValue: { sendOfJob } }]);
    const fixture = TestBed.createComponent(AddPhoto);
    fixture.componentRef.setInput('jobId', 'job');
    await fixture.whenStable();
    const root = fixture.nativeElement as HTMLElement;
    const tap = async (name: string): Promise<void> => {
      [...root.querySelectorAll('button')].find((b) => b.textContent.trim() === name)!.click();
      await fixture.whenStable();
      await fixture.whenStable();
    };
    const take = async (): Promise<void> => {
      const picker = root.querySelector<HTMLInputElement>('input[type=file]')!;
      const files = new DataTransfer();
      files.items.add(new File(['x'], 'post.jpg', { type: 'image/jpeg' }));
      picker.files = files.files;
      picker.dispatchEvent(new Event('change'));
      await fixture.whenStable();
    };
    return { root, tap, take, fixture, reported: store.selectSignal(jobFeature.selectPending) };
  }

  it('keeps the picture first, then tells the log of it by the same id, with its words', async () => {
    const sent: (readonly unknown[])[] = [];
    const { root, tap, take, fixture, reported } = await show((...of) => {
      sent.push([...of, reported().length]);
      return Promise.resolve();
    });
    await take();
    const words = root.querySelector<HTMLInputElement>('input.field')!;
    words.value = ' white deposits ';
    words.dispatchEvent(new Event('input'));
    await fixture.whenStable();
    await tap('Shows a person or a plate');
    await tap('Save photo');
    const [event] = reported();
    const photoId = (event!.data as { photoId: string }).photoId;
    expect(event!.data).toEqual({ photoId, caption: 'white deposits', showsPerson: true } as never);
    expect(sent[0]!.slice(0, 2)).toEqual(['job', photoId]);
    expect(sent[0]!.at(-1)).withContext('taps reported before it was kept').toBe(0);
    expect(root.querySelector('form')).toBeNull();
  });

  it('names no picture in the log that could not be kept, and says why', async () => {
    const { root, tap, take, reported } = await show(() => Promise.reject(new Error('full')));
    await take();
    await tap('Save photo');
    expect(reported()).toEqual([]);
    expect(root.querySelector('[role=alert]')).not.toBeNull();
  });
});
