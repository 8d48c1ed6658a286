import { expect, test } from '@playwright/test';
import { billByHand, signIn } from './arrivals.ts';
import { cell } from './grid.ts';

test('an order is made line by line; a bill that names it is coded as ordered, and says so', async ({ page }) => {
  await signIn(page, 'Ines Okafor');
  await page.getByRole('link', { name: /^Orders/ }).click();
  await page.getByRole('button', { name: 'New order' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Number').fill('PO-7001');
  await dialog.getByRole('combobox', { name: 'Supplier' }).fill('Quillhaven');
  await expect(page.getByRole('option', { name: /Quillhaven/ })).toBeVisible();
  await dialog.getByRole('combobox', { name: 'Supplier' }).press('Enter');
  await dialog.getByLabel('Description').fill('Ridge vents, fitted');
  await dialog.getByLabel('Quantity').fill('0');
  await dialog.getByLabel('Price of one').fill('120');
  await dialog.getByRole('combobox', { name: 'Account' }).fill('6090');
  await expect(page.getByRole('option', { name: /^6090/ })).toBeVisible();
  await dialog.getByRole('combobox', { name: 'Account' }).press('Enter');
  await dialog.getByRole('button', { name: 'Make order' }).click();
  await expect(dialog.getByText('A quantity is above zero.').first()).toBeVisible();
  await dialog.getByLabel('Quantity').fill('4');
  await dialog.getByRole('button', { name: 'Make order' }).click();
  await expect(page.getByRole('heading', { name: 'Order PO-7001' })).toBeVisible();
  await expect(page.getByRole('table', { name: 'Lines' })).toContainText('480.00');

  await billByHand(page, 'Quillhaven');
  await cell(page, 1, 'description').click();
  await page.keyboard.type('Ridge vents fitted');
  await cell(page, 1, 'quantity').click();
  await page.keyboard.type('4');
  await page.keyboard.press('Tab');
  await cell(page, 1, 'unitPrice').click();
  await page.keyboard.type('120');
  await page.keyboard.press('Tab');
  // What the supplier's bills are usually coded with was filled in, not typed: it goes.
  await cell(page, 1, 'accountId').click();
  await page.keyboard.press('Delete');
  await page.getByLabel('Order', { exact: true }).fill('Order no. 7001');
  await page.getByLabel('Order', { exact: true }).press('Tab');
  await expect(cell(page, 1, 'accountId')).toContainText('6090');
  await cell(page, 1, 'accountId').click();
  await expect(page.getByText('As ordered: PO-7001, line 1 (same text, same price, same quantity)')).toBeVisible();
});
