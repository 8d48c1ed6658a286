import { expect, test } from '@playwright/test';
import { makePdf } from '@ledgerline/documents/maker';
import { suppliers } from '@ledgerline/documents/suppliers';
import { arrival, arrivals, invoiceOf, signIn, upload } from './arrivals.ts';

test('the demo’s doubts stand by cause: a number with a zero more, a new sender that asks for another account', async ({ page }) => {
  await signIn(page, 'Ines Okafor');
  await page.getByRole('link', { name: 'Exceptions' }).click();
  const causes = page.getByRole('navigation', { name: 'Causes' });
  await causes.getByRole('button', { name: /has a number alike and the same total/ }).click();
  // Each of the two says it of the other.
  const row = page.getByRole('row').filter({ hasText: 'with a zero more or less' }).first();
  await expect(row).toBeVisible();
  await row.click();
  await page.getByRole('button', { name: 'Beside that bill' }).click();
  const both = page.getByRole('table', { name: 'Both bills' });
  // The numbers differ, the totals do not.
  await expect(both.locator('[data-differs=true]').filter({ hasText: 'Number' })).toBeVisible();
  await expect(both.locator('[data-differs=false]').filter({ hasText: 'Total' })).toBeVisible();
  await expect(page.getByRole('dialog').locator('canvas')).toHaveCount(2);
  await page.keyboard.press('Escape');
  await page.getByRole('link', { name: 'Exceptions' }).click();
  await causes.getByRole('button', { name: /came from where the supplier’s bills come from/ }).click();
  await expect(page.getByRole('row').filter({ hasText: 'asks for payment to another account' })).toBeVisible();
  await expect(page.getByRole('grid', { name: 'Exceptions' })).not.toContainText('with a zero more or less');
});

test('the same doubt on several bills is settled in one go, with one reason', async ({ page }) => {
  const quillhaven = suppliers.findIndex((s) => s.name.startsWith('Quillhaven'));
  await arrivals(page);
  for (const number of ['E2E-EX1', 'E2E-EX2']) {
    const invoice = { ...invoiceOf(quillhaven, number, 1), purchaseOrder: 'PO-9797' };
    await page.getByRole('link', { name: /^Arrivals/ }).click();
    await upload(page, `${number}.pdf`, 'application/pdf', await makePdf(invoice));
    await expect(arrival(page, number).getByRole('link', { name: /Quillhaven/ })).toBeVisible();
  }
  await signIn(page, 'Halina Voss');
  await page.goto('/exceptions?cause=order-unknown');
  for (const number of ['E2E-EX1', 'E2E-EX2']) await page.getByRole('checkbox', { name: `Mark ${number}` }).check();
  await page.getByRole('button', { name: 'Overrule 2' }).click();
  await page.getByRole('dialog').getByLabel('Reason').fill('Ordered by telephone');
  await page.getByRole('dialog').getByRole('button', { name: 'Overrule' }).click();
  await expect(page.getByText('2 settled')).toBeVisible();
  await expect(page.getByRole('checkbox', { name: 'Mark E2E-EX1' })).toHaveCount(0);
});
