import { HttpTestingController } from '@angular/common/http/testing';
import { TestBed } from '@angular/core/testing';
import { Store } from '@ngrx/store';
import { opened } from '../../../testing/fixtures';
import { jobHarness } from '../../../testing/job-harness';
import { JobActions } from '../../shared/model/job-state';
import { SignInActions } from '../../shared/data/sign-in';
import { Scene } from './scene';

const asked = () =>
  TestBed.inject(HttpTestingController).expectOne((r) => r.url === '/api/instruments/weather');

const SNOW = { place: 'Test yard', at: '', tempC: -7.4, lowC: -9.6, windMs: 3, sky: 'snow' };

describe('Scene', () => {
  it('takes the cold from the weather service at one tap', async () => {
    const { root, tap, reported, refresh } = await jobHarness(Scene, [opened()]);
    const request = asked();
    expect(request.request.params.get('place')).toBe('Test yard');
    request.flush(SNOW);
    await refresh();
    await tap('service: -7 °C, low -10, snow');
    expect(reported().at(-1)!.data).toEqual(jasmine.objectContaining({ ambientC: -7, coldestC: -10 }));
    expect(root.querySelector('output')!.textContent).toBe('-7');
  });

  it('keeps the coldest since it ran, and nothing where it was no colder', async () => {
    const { root, reported, refresh } = await jobHarness(Scene, [opened()]);
    asked().flush(null, { status: 404, statusText: 'Not Found' });
    const press = async (label: string): Promise<void> => {
      root.querySelector<HTMLButtonElement>(`[aria-label="${label}"]`)!.click();
      await refresh();
    };
    const kept = (): unknown => (reported().at(-1)!.data as { coldestC?: number }).coldestC;
    await press('It was colder');
    expect(kept()).toBe(-5);
    await press('It was less cold');
    expect(kept()).toBeUndefined();
    expect(root.querySelector<HTMLButtonElement>('[aria-label="It was less cold"]')!.disabled).toBeTrue();
  });

  it('asks the service again when the network is back, and says no more that nobody answers', async () => {
    const { root, refresh } = await jobHarness(Scene, [opened()]);
    const store = TestBed.inject(Store) as Store;
    asked().error(new ProgressEvent('error'));
    store.dispatch(JobActions.connectionChanged({ connected: false }));
    await refresh();
    expect(root.textContent).toContain('The server does not answer');
    store.dispatch(JobActions.connectionChanged({ connected: true }));
    await refresh();
    asked().flush(SNOW);
    await refresh();
    expect(root.textContent).not.toContain('The server does not answer');
    expect(root.textContent).toContain('service: -7 °C');
  });

  it('asks the service again when somebody has signed in, and no longer says that nobody has', async () => {
    const { root, refresh } = await jobHarness(Scene, [opened()]);
    const store = TestBed.inject(Store) as Store;
    store.dispatch(SignInActions.requested({ crewId: null }));
    asked().flush(
      { type: 'about:blank', title: 'Unauthorized', status: 401, detail: 'Sign in to go on.' },
      { status: 401, statusText: 'Unauthorized' },
    );
    await refresh();
    store.dispatch(SignInActions.putOff());
    await refresh();
    asked().flush(SNOW);
    await refresh();
    expect(root.textContent).not.toContain('Sign in');
    expect(root.textContent).toContain('service: -7 °C');
  });

  it('keeps what the service said while the network is away, and asks nobody', async () => {
    const { root, refresh } = await jobHarness(Scene, [opened()]);
    const store = TestBed.inject(Store) as Store;
    asked().flush(SNOW);
    store.dispatch(JobActions.connectionChanged({ connected: false }));
    await refresh();
    TestBed.inject(HttpTestingController).expectNone((r) => r.url === '/api/instruments/weather');
    expect(root.textContent).toContain('service: -7 °C');
  });

  it('says when the service is not there, and can be typed all the same', async () => {
    const { root, reported, refresh } = await jobHarness(Scene, [opened()]);
    asked().flush(
      {
        type: 'about:blank',
        title: 'Bad Gateway',
        status: 502,
        detail: 'The weather service does not answer.',
      },
      { status: 502, statusText: 'Bad Gateway' },
    );
    await refresh();
    expect(root.querySelector('.weather')!.textContent).toContain('does not answer');
    root.querySelector<HTMLButtonElement>('[aria-label=Colder]')!.click();
    expect(reported().at(-1)!.data).toEqual(jasmine.objectContaining({ ambientC: -5 }));
  });

  it('raises a stop from a red flag and shows what to do instead', async () => {
    const { root, tap, reported } = await jobHarness(Scene, [opened()]);
    asked().flush(null, { status: 404, statusText: 'Not Found' });
    await tap(/Fuel smell or spill/);
    expect(reported().map((e) => e.type)).toEqual(['stop.raised']);
    expect(root.querySelector('[role=alert]')!.textContent.length).toBeGreaterThan(20);
    expect(root.querySelector('.next')!.textContent).toContain('Stopped');
  });
});
