import { expect, test } from '@playwright/test';
import { billByHand, signIn } from './arrivals.ts';
import { cell } from './grid.ts';

test('an item is made, and taken by a row in a few keys; what stood there stays', async ({ page, browser }) => {
  const kit = await (await browser.newContext()).newPage();
  await signIn(kit, 'Kit Arden');
  await kit.goto('/settings/items');
  await kit.getByRole('button', { name: 'New item' }).click();
  await kit.getByLabel('Code', { exact: true }).fill('LAMP-9');
  await kit.getByLabel('Name', { exact: true }).fill('Grow lamp, 9 W');
  await kit.getByLabel('Price of one, without tax').fill('4.25');
  await kit.getByRole('button', { name: 'Make item' }).click();
  await expect(kit.getByText('In which currency?')).toBeVisible();
  await kit.getByLabel('Currency', { exact: true }).fill('GBP');
  await kit.getByRole('combobox', { name: 'Usual account' }).fill('6060');
  await expect(kit.getByRole('option', { name: /^6060/ })).toBeVisible();
  await kit.getByRole('combobox', { name: 'Usual account' }).press('Enter');
  await kit.getByRole('button', { name: 'Make item' }).click();
  await expect(kit.getByRole('row').filter({ hasText: 'LAMP-9' })).toContainText('6060');

  await signIn(page, 'Ines Okafor');
  await billByHand(page, 'Quillhaven');
  await cell(page, 1, 'quantity').click();
  await page.keyboard.type('3');
  await page.keyboard.press('Tab');
  await page.keyboard.press('Alt+i');
  const dialog = page.getByRole('dialog');
  await page.keyboard.type('grow lamp');
  await expect(page.getByRole('option', { name: /LAMP-9/ })).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(dialog).toContainText('Fills in code LAMP-9, description Grow lamp, 9 W, price 4.25, amount 12.75.');
  await page.keyboard.press('Enter');
  await expect(dialog).toHaveCount(0);
  await expect(cell(page, 1, 'description')).toContainText('Grow lamp, 9 W');
  await expect(cell(page, 1, 'amount')).toContainText('12.75');
  // The supplier's usual account was there before.
  await expect(cell(page, 1, 'accountId')).toContainText('6140');
  await page.keyboard.press('Control+z');
  await expect(cell(page, 1, 'description')).not.toContainText('Grow lamp');
});

test('terms in parts give the first day, and say what falls due when', async ({ page }) => {
  await signIn(page, 'Ines Okafor');
  await billByHand(page, 'Quillhaven');
  await page.getByLabel('Invoice date').fill('2 Nov 2026');
  await page.getByLabel('Invoice date').press('Tab');
  await page.getByLabel('Total', { exact: true }).fill('120.01');
  await page.getByLabel('Total', { exact: true }).press('Tab');
  await page.getByLabel('Due', { exact: true }).fill('50% 30 days, 50% 60 days');
  await page.getByLabel('Due', { exact: true }).press('Tab');
  await expect(page.getByLabel('Terms', { exact: true })).toHaveValue('50% 30 days, 50% 60 days');
  const parts = page.getByText('in 2 parts');
  await expect(parts).toHaveAttribute('title', /60\.01.*60\.00/);
  // A discount says what it earns, and until when.
  await page.getByLabel('Due', { exact: true }).fill('2/10 net 30');
  await page.getByLabel('Due', { exact: true }).press('Tab');
  await expect(page.getByText('−2.40 by')).toHaveAttribute('title', /^2% off where it is paid by .*12/);
  await page.getByLabel('Due', { exact: true }).fill('50% 30 days, 50% 60 days');
  await page.getByLabel('Due', { exact: true }).press('Tab');
  await expect(parts).toBeVisible();
  // Another day is the whole's.
  await page.getByLabel('Due', { exact: true }).fill('15 Dec 2026');
  await page.getByLabel('Due', { exact: true }).press('Tab');
  await expect(parts).toHaveCount(0);
});

test('a name for terms is made, and means them at the desk', async ({ page, browser }) => {
  const kit = await (await browser.newContext()).newPage();
  await signIn(kit, 'Kit Arden');
  await kit.goto('/settings/terms');
  await kit.getByRole('button', { name: 'New terms' }).click();
  await kit.getByLabel('Code', { exact: true }).fill('SEED');
  await kit.getByLabel('Name', { exact: true }).fill('Seed season');
  await kit.getByLabel('Terms', { exact: true }).fill('when we can');
  await kit.getByRole('button', { name: 'Make terms' }).click();
  await expect(kit.getByText('Write terms as net 30, 30 eom or 2/10 n30.')).toBeVisible();
  await kit.getByLabel('Terms', { exact: true }).fill('60 eom');
  await expect(kit.getByText(/^A bill of today falls due on /)).toBeVisible();
  await kit.getByRole('button', { name: 'Make terms' }).click();
  await expect(kit.getByRole('row').filter({ hasText: 'Seed season' })).toContainText('60 eom');

  await signIn(page, 'Ines Okafor');
  await billByHand(page, 'Quillhaven');
  // The company's names for terms are there.
  await expect(page.locator('#own-terms option')).not.toHaveCount(0);
  await page.getByLabel('Invoice date').fill('2 Nov 2026');
  await page.getByLabel('Invoice date').press('Tab');
  await page.getByLabel('Due', { exact: true }).fill('seed season');
  await page.getByLabel('Due', { exact: true }).press('Tab');
  await expect(page.getByLabel('Terms', { exact: true })).toHaveValue('60 eom');
  await expect(page.getByLabel('Due', { exact: true })).toHaveValue(/29 Jan/);
  await page.getByLabel('Terms', { exact: true }).fill('QUICK');
  await page.getByLabel('Terms', { exact: true }).press('Tab');
  await expect(page.getByLabel('Terms', { exact: true })).toHaveValue('2/10 n30');
});

test('what closing an account would stop is said first; what a person codes and approves holds at once', async ({ page, browser }) => {
  const kit = await (await browser.newContext()).newPage();
  await signIn(page, 'Ines Okafor');
  await billByHand(page, 'Quillhaven');
  await cell(page, 1, 'accountId').click();
  await page.keyboard.type('6090');
  await expect(page.getByRole('option', { name: /^6090/ })).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('status', { name: 'Saving' })).toHaveText('Saved');

  await signIn(kit, 'Kit Arden');
  await kit.goto('/settings/accounts');
  await kit.getByRole('searchbox').fill('6090');
  await kit.getByRole('row').filter({ hasText: 'Laboratory tests' }).click();
  await kit.getByLabel(/^Open/).uncheck();
  await expect(kit.getByRole('region', { name: 'Effect' })).toContainText(
    /Stops \d+ bills? in hand: Row 1 is on an account that is closed/,
  );
  await kit.getByRole('button', { name: 'Cancel' }).click();

  await kit.goto('/settings/people');
  await kit.getByRole('row').filter({ hasText: 'Ines Okafor' }).click();
  await kit.getByLabel('Codes and approves accounts').fill('6000-6050');
  await kit.getByRole('button', { name: 'Save' }).click();
  await expect(kit.getByText('For a range write “6000 to 6050”.').first()).toBeVisible();
  await kit.getByLabel('Codes and approves accounts').fill('6000 to 6050');
  await kit.getByRole('button', { name: 'Save' }).click();
  await expect(kit.getByRole('row').filter({ hasText: 'Ines Okafor' })).toContainText('6000 to 6050');

  await cell(page, 1, 'accountId').click();
  await page.keyboard.type('60');
  await expect(page.getByRole('option', { name: /^6010/ })).toBeVisible();
  await expect(page.getByRole('option', { name: /^6060/ })).toHaveCount(0);
  await page.keyboard.press('Escape');
  // All again, so that nothing stands in the way of what others try here.
  await kit.getByRole('row').filter({ hasText: 'Ines Okafor' }).click();
  await kit.getByLabel('Codes and approves accounts').fill('');
  await kit.getByRole('button', { name: 'Save' }).click();
  await expect(kit.getByRole('row').filter({ hasText: 'Ines Okafor' })).toContainText('all');
});

test('a budget for a year is spread over its months to the penny, and shows what is used of it', async ({ page }) => {
  await signIn(page, 'Kit Arden');
  await page.goto('/settings/budgets');
  await expect(page.getByRole('row').filter({ hasText: 'Tree work' })).toContainText('108,000.00');
  await page.getByRole('button', { name: 'New budget' }).click();
  await page.getByRole('combobox', { name: 'Account' }).fill('6650');
  await expect(page.getByRole('option', { name: /^6650/ })).toBeVisible();
  await page.getByRole('combobox', { name: 'Account' }).press('Enter');
  await page.getByLabel('For the whole year').fill('1000');
  await page.getByRole('button', { name: 'Spread over the months' }).click();
  await expect(page.getByLabel('January')).toHaveValue('83.34');
  await expect(page.getByLabel('December')).toHaveValue('83.33');
  await expect(page.getByText('1,000.00 GBP in the year')).toBeVisible();
  await page.getByRole('button', { name: 'Make budget' }).click();
  await expect(page.getByRole('row').filter({ hasText: '6650' })).toContainText('1,000.00');
});
