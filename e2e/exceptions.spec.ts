import { expect, test } from '@playwright/test';
import { makePdf } from '@ledgerline/documents/maker';
import { suppliers } from '@ledgerline/documents/suppliers';
import { arrival, arrivals, invoiceOf, signIn, upload } from './arrivals.ts';

test('the demo’s doubts stand by cause: a number with a zero more, one paper twice', async ({ page }) => {
  await signIn(page, 'Ines Okafor');
  await page.getByRole('link', { name: 'Exceptions' }).click();
  const causes = page.getByRole('navigation', { name: 'Causes' });
  await causes.getByRole('button', { name: /has a number alike and the same total/ }).click();
  // Each of the two says it of the other.
  const row = page
    .getByRole('row')
    .filter({ has: page.getByTitle(/with a zero more or less/) })
    .first();
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
  await causes.getByRole('button', { name: /came from the same paper/ }).click();
  await page.getByRole('row').filter({ hasText: 'PSS-118' }).first().click();
  await page.getByRole('button', { name: 'Beside that bill' }).click();
  await expect(both.locator('[data-differs=false]').filter({ hasText: 'Number' })).toBeVisible();
  await page.keyboard.press('Escape');
  await page.getByRole('link', { name: 'Exceptions' }).click();
  await causes.getByRole('button', { name: /are not new together/ }).click();
  await expect(page.getByRole('grid', { name: 'Exceptions' })).not.toContainText('with a zero more or less');
});

test('new account and new sender together hold the payment until a second person has asked', async ({ page }) => {
  await signIn(page, 'Ines Okafor');
  await page.goto('/exceptions?cause=not-as-known');
  const row = page.getByRole('row').filter({ hasText: 'New bank account and new sender' });
  await row.click();
  const story = page.getByRole('list', { name: 'Exceptions' }).getByText(/New bank account and new sender: this may not be/);
  await expect(story).toBeVisible();
  // Who codes bills does not verify them.
  await expect(page.getByRole('button', { name: 'Verify' })).toHaveCount(0);
  const bill = page.url();
  await signIn(page, 'Halina Voss');
  await page.goto(bill);
  await page.getByRole('button', { name: 'Verify' }).click();
  const dialog = page.getByRole('dialog');
  await expect(dialog).toContainText('never at a number or address that came with this bill');
  await dialog.getByLabel('Whom you asked').fill('Mr Linden, their bookkeeper');
  await dialog.getByLabel('How, and what they said').fill('Called the number we had: their bank has changed');
  await page.keyboard.press('Enter');
  await expect(story).toHaveCount(0);
  await expect(page.getByText('Asked Mr Linden, their bookkeeper: Called the number we had: their bank has changed')).toBeVisible();
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
