import { expect, test } from '../support/fixtures';

test('what the driver says is taken unasked, moves the suspects, reckons what was left on, and is taken back @long', async ({
  tech,
  page,
}) => {
  await tech.at('scene', 'brinmoor-pella');
  await tech.safeToWork();
  await tech.tap('slow crank');
  const suspects = page.getByRole('region', { name: 'Suspects' });
  await expect(suspects.getByRole('listitem').first()).toContainText('%');
  await expect(suspects).not.toContainText('charging fault');
  await page.getByRole('button', { name: 'The driver says' }).click();
  const dialog = page.getByRole('dialog', { name: 'The driver says' });
  const said = (name: string) => dialog.getByRole('group', { name, exact: true });
  await said('Charge lamp while driving').getByRole('button', { name: 'was lit' }).click();
  await said('Noises').getByRole('button', { name: 'squeals after a start' }).click();
  await said('Something left on').getByRole('button', { name: 'yes' }).click();
  await dialog.getByRole('radio', { name: 'parking lamps' }).click();
  // 30 W at 12 V for eight hours.
  await expect(dialog.getByText('about 20 Ah of 44')).toBeVisible();
  // It was wrong after all: the same tap takes it back, and a glove's double tap counts once.
  await said('Something left on').getByRole('button', { name: 'yes' }).dblclick();
  await expect(said('Something left on').getByRole('button', { name: 'yes' })).toHaveAttribute(
    'aria-pressed',
    'false',
  );
  await dialog.getByRole('button', { name: 'Done' }).click();
  await expect(page.getByRole('button', { name: 'The driver says, 2' })).toBeVisible();
  await expect(suspects.getByRole('listitem').first()).toContainText('charging fault');
  await page.reload();
  await expect(page.getByRole('button', { name: 'The driver says, 2' })).toBeVisible();
});
