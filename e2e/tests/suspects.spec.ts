import { expect, test } from '../support/fixtures';

test('each finding re-ranks the suspects, and the next best check is proposed until it is clear', async ({
  tech,
  page,
}) => {
  await tech.at('scene', 'brinmoor-pella');
  await tech.next('Safe to work here');
  const suspects = page.getByRole('region', { name: 'Suspects' });
  const nextCheck = page.getByRole('region', { name: 'Next check' });
  await expect(suspects.getByRole('listitem').first()).toContainText('%');
  // Nothing is known yet: what it does is asked first, and answered where the symptoms are.
  await expect(nextCheck).toContainText('What does it do?');
  await expect(nextCheck).toContainText('Tap it above.');
  await expect(nextCheck.getByRole('textbox')).toBeHidden();
  await tech.tap('brisk crank, no fire');
  await expect(suspects.getByRole('listitem').first()).toContainText('fuel or engine');
  // In frost nothing draws current before the rest volts are read: the key would.
  await expect(nextCheck).toContainText('Read rest volts');
  // Recorded where the checks are, it counts just the same.
  await page.getByRole('group', { name: 'Immobiliser lamp' }).getByRole('button', { name: 'lit' }).click();
  await expect(suspects.getByRole('listitem').first()).toContainText('immobiliser');
  await expect(suspects.getByRole('listitem').first()).toContainText(/[89]\d %/);
  await tech.tap('Undo');
  await expect(suspects.getByRole('listitem').first()).toContainText('fuel or engine');

  await tech.tap('brisk crank, no fire', 'slow crank');
  const before = await nextCheck.locator('.ask').textContent();
  await nextCheck.getByRole('button', { name: 'Skip' }).click();
  await expect(nextCheck.locator('.ask')).not.toHaveText(before!);
  await tech.saved();
  await page.reload();
  await expect(suspects.getByRole('listitem').first()).toContainText('%');
});

test('a figure is taken on the spot, and what has its own stage is read there @long', async ({
  tech,
  page,
}) => {
  await tech.at('scene', 'brinmoor-pella');
  await tech.openStage('Measure');
  await tech.read('1255');
  await tech.openStage('Checks');
  await tech.tap('slow crank');
  const nextCheck = page.getByRole('region', { name: 'Next check' });
  for (let i = 0; i < 12; i++) {
    await expect(nextCheck.locator('.ask')).toBeVisible();
    if (((await nextCheck.locator('.ask').textContent()) ?? '').includes('Test the battery')) break;
    const before = await nextCheck.locator('.ask').textContent();
    await nextCheck.getByRole('button', { name: 'Skip' }).click();
    await expect(nextCheck.locator('.ask')).not.toHaveText(before!);
  }
  await nextCheck.getByRole('textbox').fill('abc');
  await expect(nextCheck.getByRole('button', { name: 'Take' })).toBeDisabled();
  await nextCheck.getByRole('textbox').fill('0,52');
  await nextCheck.getByRole('button', { name: 'Take' }).click();
  const first = page.getByRole('region', { name: 'Suspects' }).getByRole('listitem').first();
  await expect(first).toContainText('worn battery');
});
