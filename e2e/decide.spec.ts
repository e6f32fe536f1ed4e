// Deciding: every unit that could go on a quad, side by side, and a whole plan in one press.
import { expect, test } from './program';

test('what could go on a quad: sorted, two held against each other, a whole plan taken and taken back', async ({
  page,
  open,
}) => {
  await open('/swap/damsel');
  await page.getByRole('link', { name: 'What could go on it' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('What could go on Damsel');
  const table = page.getByRole('group', { name: 'Units side by side' });
  await expect(table.getByRole('row').nth(1)).toContainText('leave it');

  await page.getByLabel('Show').selectOption('those with a plan');
  await expect(table).not.toContainText('no plan:');
  await page.getByLabel('Sorted by').selectOption('mass');
  await expect(page).toHaveURL(/only=ways/);
  await expect(page).toHaveURL(/by=mass/);

  await page.getByLabel('Hold Two of Fantail, on Fantail, against another').check();
  await page.getByLabel('Hold Aldine Two, to buy, against another').check();
  const pair = page.getByRole('region', { name: 'Two of Fantail against Aldine Two' });
  await expect(pair.getByRole('row', { name: /to pay/ })).toContainText('159');
  await page.reload();
  await expect(pair).toBeVisible();

  await table.getByRole('button', { name: 'One Compact of Damsel' }).click();
  const plan = page.getByRole('article', { name: 'The best plan' });
  await expect(plan).toContainText('feed the Aldine One Compact from the 10 V pad');
  await plan.getByRole('button', { name: 'Plan this' }).click();
  await expect(page).toHaveURL(/\/swap\/damsel/);
  await expect(page.locator('.title')).toContainText('caution');
  await page.keyboard.press('u');
  await expect(page.getByRole('dialog', { name: 'What was changed' })).toContainText('planned as a whole');
});

test('where there is no plan, the facts that forbid it are named', async ({ page, open }) => {
  await open('/candidates/hopper');
  await page.getByRole('button', { name: 'Pellow Mini' }).click();
  await expect(page.getByRole('heading', { name: 'What forbids it: the link gate' })).toBeVisible();
  await expect(page.getByText('never links with', { exact: false }).first()).toBeVisible();
});
