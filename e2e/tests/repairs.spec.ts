import type { JobSheet } from '@voltrek/core/job';
import { expect, test } from '../support/fixtures';

test('a joint that loses volts is mended on the spot: step by step, read again, and the verdict says repaired @long', async ({
  tech,
  page,
}) => {
  await tech.at('measure', 'brinmoor-pella', { symptom: 'slow-crank', restVolts: [12.6] });
  await page.getByRole('radio', { name: 'Over joints' }).click();
  await page.getByRole('radio', { name: '- joint' }).click();
  await tech.read('2.50');
  await tech.openStage('Plan');
  // The way that mends first is taken where the meter has told which joint it is.
  await page.getByRole('radio', { name: /Mend the joint, then nothing joined/ }).click();
  await tech.next('Mend the joint first');
  const dialog = page.getByRole('dialog', { name: 'Clean and tighten the negative clamp' });
  const steps = dialog.getByRole('listitem');
  await expect(steps.nth(1)).toContainText('Take the negative clamp off first');
  // Nothing is mended by looking at how.
  await dialog.getByRole('button', { name: 'Not mended' }).click();
  await expect(page.getByText('Mended: negative clamp.')).toHaveCount(0);
  await page.getByRole('button', { name: 'Clean and tighten the negative clamp' }).click();
  await dialog.getByRole('button', { name: 'Mended', exact: true }).click();
  await expect(page.getByText('Mended: negative clamp.').first()).toBeVisible();
  await expect(page.getByText('before: 2.50 V lost; not found again yet').first()).toBeVisible();
  // Sound again, it is no way any more to mend it, and the machine cranks by itself.
  await expect(page.getByRole('radio', { name: /Mend the joint/ })).toHaveCount(0);
  await tech.openStage('Measure');
  await page.getByRole('radio', { name: 'Over joints' }).click();
  await page.getByRole('radio', { name: '- joint' }).click();
  await tech.read('0.06');
  await tech.openStage('Crank');
  await tech.tryOnce('It runs');
  await tech.openStage('Verdict');
  await expect(page.getByRole('heading', { name: 'Repaired: negative clamp' })).toBeVisible();
  await expect(page.getByText('before: 2.50 V lost; after: 0.06 V lost').first()).toBeVisible();
  await tech.next('Give verdict: Repaired');
  await page.getByRole('radio', { name: 'Next' }).click();
  await expect(page.getByLabel('Follow-ups')).not.toContainText(/charge|workshop/i);
  const answer = await page.request.get(`${tech.url}/api/jobs/${page.url().split('/')[4]!}/sheet`);
  const { repairs } = (await answer.json()) as Pick<JobSheet, 'repairs'>;
  expect(repairs[0]).toMatchObject({
    kind: 'joint-cleaned',
    side: 'minus',
    before: { check: 'joint-minus', found: 2.5 },
    after: { check: 'joint-minus', found: 0.06 },
  });
});

test('a switch that stood wrong is put right, and an undo takes the repair back @long', async ({
  tech,
  page,
}) => {
  await tech.at('scene', 'ostrel-fell-450');
  await tech.safeToWork();
  await page.getByRole('group', { name: 'Kill switch' }).getByRole('button', { name: 'was off' }).click();
  await page.getByRole('button', { name: 'Put right: kill switch' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Mended', exact: true }).click();
  await expect(page.getByText('Mended: kill switch.')).toBeVisible();
  await expect(
    page.getByRole('group', { name: 'Kill switch' }).getByRole('button', { name: 'was off' }),
  ).toHaveAttribute('aria-pressed', 'false');
  await tech.tap('Undo');
  await expect(page.getByText('Mended: kill switch.')).toHaveCount(0);
  await expect(page.getByRole('button', { name: 'Put right: kill switch' })).toBeVisible();
});

test('a rolling start is gone through step by step, and is in the log as what it was @long', async ({
  tech,
  page,
}) => {
  await tech.at('scene', 'brinmoor-pella', { ambientC: 6 });
  await tech.tap('car park', 'sloping');
  await tech.toMeasure('rapid clicking');
  await tech.read('1180');
  await tech.openStage('Plan');
  await page.getByRole('radio', { name: /Rolling start/ }).click();
  await tech.next('Roll it, step by step');
  const dialog = page.getByRole('dialog', { name: 'Rolling start' });
  await expect(dialog.getByRole('listitem').first()).toContainText('clear, straight, long');
  await expect(dialog).not.toContainText('Two push');
  await dialog.getByRole('button', { name: 'It does not run' }).click();
  await tech.next('Roll it, step by step');
  await dialog.getByRole('button', { name: 'It runs' }).click();
  await tech.expectStage('Crank');
  await expect(page.getByText('rolled').first()).toBeVisible();
  await tech.openStage('Verdict');
  // Turned by its wheels it says nothing of starter or battery.
  await expect(page.getByText('By itself it')).toHaveCount(0);
});
