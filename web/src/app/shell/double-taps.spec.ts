import { DOUBLE_TAP_MS, ignoreDoubleTaps } from './double-taps';

describe('A double tap', () => {
  let counted: string[];
  const add = (html: string): HTMLElement => {
    const host = document.createElement('div');
    host.innerHTML = html;
    document.body.append(host);
    host.addEventListener('click', (event) => counted.push((event.target as Element).textContent));
    return host;
  };

  let end: () => void;
  beforeAll(() => (end = ignoreDoubleTaps(document)));
  afterAll(() => end());
  beforeEach(() => (counted = []));

  it('on a toggle counts once, and again after a moment', async () => {
    const host = add('<button aria-pressed="false">lamp</button>');
    const button = host.querySelector('button')!;
    button.click();
    button.click();
    expect(counted).toEqual(['lamp']);
    await new Promise((done) => setTimeout(done, DOUBLE_TAP_MS + 30));
    button.click();
    expect(counted).toEqual(['lamp', 'lamp']);
    host.remove();
  });

  it('is two taps on two toggles, and on a key of a pad', () => {
    const host = add(
      '<button aria-pressed="false">a</button><button aria-pressed="true">b</button><button>1</button>',
    );
    const [a, b, one] = [...host.querySelectorAll('button')];
    a!.click();
    b!.click();
    a!.click();
    one!.click();
    one!.click();
    expect(counted).toEqual(['a', 'b', 'a', '1', '1']);
    host.remove();
  });
});
