import { readFile } from 'node:fs/promises';
import { expect, test } from '../support/fixtures';

test('an exam is begun, worked without hints, ended, marked, signed by a lead, and kept as PDF and JSON @long', async ({
  page,
  server,
}) => {
  const { url } = server;
  await page.goto(`${url}/practice`);
  await page.getByLabel('Who works').selectOption('crew-4');
  await page.getByRole('link', { name: 'Exam' }).click();
  await page.getByLabel('Number of the exam').fill('0');
  await expect(page.getByRole('button', { name: 'Begin the exam' })).toBeDisabled();
  await page.getByLabel('Number of the exam').fill('13');
  await page.getByRole('button', { name: 'Begin the exam' }).click();
  await expect(page.getByText('50 min left')).toBeVisible();
  const cases = page.getByRole('link', { name: /^Open case/ });
  await expect(cases).toHaveCount(5);
  await expect(page.getByText('not begun')).toHaveCount(5);

  // Nothing tells what a case is about, and nothing helps.
  await page.getByRole('link', { name: 'Open case 1' }).click();
  await expect(page.getByRole('heading', { name: 'Exam, case 1' })).toBeVisible();
  await expect(page.getByText('Polarity and order')).toHaveCount(0);
  await expect(page.getByRole('button', { name: 'Next best step' })).toHaveCount(0);
  await page.reload();
  await page.getByRole('button', { name: 'Give the verdict' }).click();
  await page.getByRole('radio', { name: 'Charge first' }).click();
  await page.getByRole('button', { name: 'Give it' }).click();
  await expect(page.getByText('Your verdict is given')).toBeVisible();
  await expect(page.getByRole('heading', { name: /assed/ })).toHaveCount(0);
  await page.getByRole('link', { name: 'Back to the exam' }).click();
  await expect(page.getByText('verdict given')).toHaveCount(1);

  // A case that is left open counts as wrong, and the page says so before.
  await page.getByRole('button', { name: 'End the exam' }).click();
  const asked = page.getByRole('dialog');
  await expect(asked).toContainText('4 cases have no verdict yet');
  await asked.getByRole('button', { name: 'Go on with it' }).click();
  await page.getByRole('button', { name: 'End the exam' }).click();
  await asked.getByRole('button', { name: 'End the exam' }).click();
  const line = page.getByRole('listitem').filter({ hasText: 'exam 13' });
  await expect(line).toContainText('not passed, 0 of 5 right', { timeout: 120_000 });
  await expect(page.getByText(/Weakest of the crew:/)).toBeVisible();
  await expect(page.locator('vt-chart svg')).toContainText('0 / 1');

  // Nobody signs their own; a lead does.
  await expect(page.getByRole('button', { name: /^Sign exam/ })).toHaveCount(0);
  await page.getByLabel('Who works').selectOption('crew-1');
  await page.getByRole('button', { name: /^Sign exam 13 of/ }).click();
  await expect(line).toContainText('signed by');
  const [pdf] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: /^PDF of exam 13/ }).click(),
  ]);
  expect((await readFile(await pdf.path())).subarray(0, 5).toString()).toBe('%PDF-');
  const [json] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: /^JSON of exam 13/ }).click(),
  ]);
  const exam = JSON.parse(await readFile(await json.path(), 'utf8')) as {
    format: string;
    signedBy: string;
    cases: { failings: string[] }[];
  };
  expect([exam.format, exam.signedBy]).toEqual(['voltrek-exam', 'crew-1']);
  expect(exam.cases[0]!.failings).toContain('stops-unlooked');
  expect(exam.cases[1]!.failings).toContain('not-ended');
});
