import { expect, test } from '@playwright/test';
import { makePdf } from '@ledgerline/documents/maker';
import { arrival, arrivals, invoiceOf, upload } from './arrivals.ts';
import { cell } from './grid.ts';

test('a bill of a supplier that is not known is coded once its supplier is chosen; what was typed before stays', async ({ page }) => {
  const invoice = invoiceOf(0, 'E2E-C1');
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
  await expect(cell(page, 1, 'accountId')).toContainText('6140');
  await expect(cell(page, 1, 'taxCodeId')).toHaveText('S20');
  await expect(cell(page, 2, 'accountId')).toContainText('6300');
  await cell(page, 1, 'accountId').click();
  await expect(page.getByText(/lines .*from this supplier; last/)).toBeVisible();
});
