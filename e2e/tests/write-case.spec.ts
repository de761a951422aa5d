import { readFileSync } from 'node:fs';
import { expect, test } from '../support/fixtures';

test('a case is written, tried, edited, kept as a file, and a broken file is refused by line', async ({
  page,
  server,
}, info) => {
  await page.goto(`${server.url}/practice`);
  await page.getByRole('link', { name: 'Write a case' }).click();
  const tryIt = page.getByRole('button', { name: 'Try it' });
  await expect(tryIt).toBeDisabled();
  await page.getByLabel('Title').fill('The kind neighbour');
  await page.getByLabel('Machine', { exact: true }).selectOption('truck');
  await page.getByLabel('Why it does not start').selectOption('string-weak');
  await page.getByLabel('What is wrong besides').selectOption('drain');
  await page.getByLabel('In the driver’s words').fill('It was fine last night.');
  await page.getByLabel('Something left on').selectOption('yes');
  await page.getByLabel('Cold, °C').fill('-50');
  await page.getByLabel('Number').click();
  await expect(page.getByText('from -30 to 40 °C')).toBeVisible();
  await expect(tryIt).toBeDisabled();
  await page.getByLabel('Cold, °C').fill('-6');
  await page.getByRole('button', { name: 'Load tester' }).click();
  await tryIt.click();

  // The driver speaks the text of the case. Kit that is not in the van is missing.
  await expect(page.getByRole('heading', { name: 'The kind neighbour' })).toBeVisible();
  await expect(page.getByText('truck, 24 V, -6 °C')).toBeVisible();
  await expect(page.getByText('It was fine last night.')).toBeVisible();
  await page.getByRole('button', { name: 'Something left on' }).click();
  await expect(page.locator('.log li').first()).toContainText('yes');
  await expect(page.getByRole('button', { name: /Tested, of its rating/ }).first()).toBeVisible();
  await expect(page.getByRole('button', { name: /^Load test/ })).toHaveCount(0);
  const address = page.url();

  await page.getByRole('link', { name: 'Edit it' }).click();
  await expect(page.getByLabel('Title')).toHaveValue('The kind neighbour');
  await expect(page.getByLabel('What is wrong besides')).toHaveValue('drain');
  await expect(page.getByRole('button', { name: 'Load tester' })).toHaveAttribute('aria-pressed', 'false');
  const saving = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save as a file' }).click();
  const file = info.outputPath('case.json');
  await (await saving).saveAs(file);
  const text = readFileSync(file, 'utf8');

  const open = async (name: string, held: string): Promise<void> => {
    const buffer = Buffer.from(held);
    await page.getByLabel('Open a file').setInputFiles({ name, mimeType: 'application/json', buffer });
  };
  await page.getByLabel('Title').fill('Another');
  const line = text.split('\n').findIndex((l) => l.includes('"string-weak"')) + 1;
  await open('broken.json', text.replace('"string-weak"', '"converter"'));
  const refused = page.getByRole('alert').filter({ hasText: 'Nothing of broken.json is taken' });
  await expect(refused).toContainText(`Line ${line}`);
  await expect(refused).toContainText('such a machine cannot have this fault');
  await expect(page.getByLabel('Title')).toHaveValue('Another');
  await open('case.json', text);
  await expect(refused).toBeHidden();
  await expect(page.getByLabel('Title')).toHaveValue('The kind neighbour');

  // The same file is the same case, and its address the same to whoever has it.
  await page.getByRole('button', { name: 'Try it' }).click();
  await expect(page).toHaveURL(address);
  await page.goto(`${server.url}/practice/written~.7B.22title`);
  await expect(page.getByText('No case has that code')).toBeVisible();
});
