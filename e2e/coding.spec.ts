import { expect, test } from '@playwright/test';
import { makePdf } from '@ledgerline/documents/maker';
import { arrival, arrivals, billByHand, invoiceOf, signIn, upload } from './arrivals.ts';
import { cell } from './grid.ts';

test('a bill of a supplier that is not known is coded once its supplier is chosen; what was typed before stays', async ({ page }) => {
  const invoice = invoiceOf(1, 'E2E-C1');
  const unknown = { ...invoice.supplier, name: 'Thornmere Sundries', taxId: null, iban: '', domain: 'thornmere.example' };
  await arrivals(page);
  await upload(page, 'unknown.pdf', 'application/pdf', await makePdf({ ...invoice, supplier: unknown as never }));
  await arrival(page, 'E2E-C1')
    .getByRole('link', { name: /Thornmere/ })
    .click();
  await expect(page.getByTestId('page').locator('canvas')).toBeVisible();
  await cell(page, 2, 'accountId').click();
  await page.keyboard.type('6300');
  await expect(page.getByRole('option', { name: /6300/ })).toBeVisible();
  await page.keyboard.press('Enter');
  await page.locator('input[aria-label="Supplier"]').click();
  await page.keyboard.type(invoice.supplier.name.slice(0, 10));
  await expect(page.getByRole('option', { name: new RegExp(invoice.supplier.name) })).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('status', { name: 'Saving' })).toHaveText('Saved');
  await expect(cell(page, 1, 'accountId')).toContainText('6000');
  await expect(cell(page, 1, 'taxCodeId')).toHaveText('S20');
  await expect(cell(page, 2, 'accountId')).toContainText('6300');
  await cell(page, 1, 'accountId').click();
  await expect(page.getByText(/lines .*from this supplier; last|As ordered: PO-/)).toBeVisible();
});

test('rent goes over five cost centres by a distribution key, to the penny, and back; the next time in two keys', async ({ page }) => {
  await signIn(page, 'Ines Okafor');
  await billByHand(page, 'Quillhaven');
  await cell(page, 1, 'description').click();
  await page.keyboard.type('Site rent, fourth quarter');
  await cell(page, 1, 'amount').click();
  await page.keyboard.type('1000.01');
  await page.keyboard.press('Enter');
  await cell(page, 1, 'amount').click();
  await page.keyboard.press('Alt+x');
  const dialog = page.getByRole('dialog', { name: 'Split row 1' });
  await dialog.getByRole('radio', { name: 'By a distribution key' }).check();
  await expect(dialog.getByRole('table', { name: 'Parts' })).toContainText('210 Palm House1240427.59');
  await dialog.getByLabel('Distribution key', { exact: true }).press('Enter');
  await cell(page, 1, 'description').click();
  const parts = [['210', '427.59'], ['220', '106.90'], ['300', '225.86'], ['400', '144.83'], ['420', '94.83']]; // prettier-ignore
  for (const [i, [centre, amount]] of parts.entries()) {
    await expect(cell(page, i + 1, 'costCentreId')).toContainText(centre!);
    await expect(cell(page, i + 1, 'amount')).toHaveText(amount!);
  }
  await page.keyboard.press('Control+z');
  await cell(page, 1, 'description').click();
  await expect(cell(page, 1, 'amount')).toHaveText('1,000.01');
  await expect(cell(page, 2, 'amount')).toHaveCount(0);
  await cell(page, 1, 'amount').click();
  await page.keyboard.press('Alt+x');
  await expect(dialog.getByRole('table', { name: 'Parts' })).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(cell(page, 5, 'amount')).toHaveText('94.83');
});
