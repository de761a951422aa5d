import { mkdirSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { expect, test } from '../support/fixtures';
import config from '../playwright.config';

/** The browser's camera shows this film: one picture, again and again. */
const FILM = join(import.meta.dirname, '../test-results/camera/label.y4m');
const WIDTH = 640;
const HEIGHT = 480;

const { launchOptions } = config.use!;
test.use({
  launchOptions: {
    ...launchOptions,
    args: [
      ...launchOptions!.args!,
      '--use-fake-ui-for-media-stream',
      '--use-fake-device-for-media-stream',
      `--use-file-for-fake-video-capture=${FILM}`,
    ],
  },
});

interface Rect {
  readonly x: number;
  readonly y: number;
  readonly w: number;
  readonly h: number;
  readonly color: string;
}
/** The code as the sheet of labels draws it. */
const printer = createRequire(import.meta.url)('pdfmake/js/qrEnc.js') as {
  readonly default: {
    measure(node: { qr: string; fit: number }): { _canvas: readonly Rect[]; _width: number };
  };
};

/** Films a label: a grey wall, and on it the code. */
function film(text: string): void {
  const { _canvas: rects, _width: size } = printer.default.measure({ qr: text, fit: 300 });
  const [left, top] = [Math.round((WIDTH - size) / 2), Math.round((HEIGHT - size) / 2)];
  const grey = Buffer.alloc(WIDTH * HEIGHT, 170);
  for (const { x, y, w, h, color } of rects)
    for (let row = 0; row < h; row++) {
      const from = (top + y + row) * WIDTH + left + x;
      grey.fill(color === '#fff' ? 235 : 16, from, from + w);
    }
  const colour = Buffer.alloc((WIDTH * HEIGHT) / 2, 128);
  const frame = Buffer.concat([Buffer.from('FRAME\n'), grey, colour]);
  mkdirSync(dirname(FILM), { recursive: true });
  writeFileSync(
    FILM,
    Buffer.concat([Buffer.from(`YUV4MPEG2 W${WIDTH} H${HEIGHT} F10:1 Ip C420\n`), frame, frame, frame]),
  );
}

test('the camera reads the label of a battery and opens its record; another code is told', async ({
  page,
  tech,
}) => {
  const [battery] = (await (await page.request.get(`${tech.url}/api/batteries`)).json()) as {
    id: string;
    code: string;
  }[];
  film('https://shop.example/offers');
  await page.goto(`${tech.url}/batteries`);
  await tech.tap('Read a label');
  await expect(page.getByRole('dialog').getByRole('status')).toHaveText(
    'That is not the label of a battery.',
  );
  await tech.tap('Cancel');
  film(`${tech.url}/battery/${battery!.id}`);
  await tech.tap('Read a label');
  await expect(page.getByRole('heading', { name: `Battery ${battery!.code}` })).toBeVisible();
});
