import { expect, test } from '../support/fixtures';

test('a note is written at any stage, waits without network, and stands in the log of the job', async ({
  tech,
  page,
  context,
}) => {
  await tech.at('measure', 'brinmoor-pella', { symptom: 'one-click', restVolts: [11.85] });
  await context.setOffline(true);
  await tech.tap('Log');
  await page.getByLabel('Note', { exact: true }).fill('plus clamp was loose');
  await tech.tap('Add note');
  const log = page.getByRole('list', { name: 'Log and notes' });
  await expect(log.getByRole('listitem').first()).toContainText('plus clamp was loose');
  await expect(log.getByText('11.85 V')).toBeVisible();
  await page.getByRole('radio', { name: 'notes' }).click();
  await expect(log.getByRole('listitem')).toHaveCount(1);
  await tech.tap('Close');
  await context.setOffline(false);
  await tech.saved();
  await page.reload();
  await tech.openStage('Scene');
  await tech.tap('Log');
  await expect(log.getByText('plus clamp was loose')).toBeVisible();
  await tech.tap('Close');
  await tech.tap('Undo');
  await tech.tap('Log');
  await expect(log.getByRole('listitem').first()).toContainText('taken back');
});
