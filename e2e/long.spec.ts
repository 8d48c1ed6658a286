import { expect, test } from '@playwright/test';
import { makePdf } from '@ledgerline/documents/maker';
import { suppliers } from '@ledgerline/documents/suppliers';
import { arrival, arrivals, invoiceOf, upload } from './arrivals.ts';
import { cell } from './grid.ts';

test('a bill of 300 rows: pasted, coded, searched for its fault and put right, saved across a minute without a server', async ({
  page,
  context,
}) => {
  test.setTimeout(180_000);
  await context.grantPermissions(['clipboard-read', 'clipboard-write']);
  await arrivals(page);
  const index = suppliers.findIndex((s) => s.name.startsWith('Mossgarth'));
  await upload(page, 'E2E-L1.pdf', 'application/pdf', await makePdf(invoiceOf(index, 'E2E-L1', 1)));
  await arrival(page, 'E2E-L1')
    .getByRole('link', { name: /Mossgarth/ })
    .click();
  await expect(page.getByTestId('page').locator('canvas')).toBeVisible();
  const saving = page.getByRole('status', { name: 'Saving' });

  // The server is gone: what is done meanwhile waits in the browser.
  await page.route('**/api/companies/*/bills/*', (route) => (route.request().method() === 'PATCH' ? route.abort() : route.continue()));
  await cell(page, 1, 'description').click();
  await page.evaluate(() =>
    navigator.clipboard.writeText(Array.from({ length: 300 }, (_, i) => `Row number ${i + 1}\t${(i % 9) + 1}`).join('\n')),
  );
  await page.keyboard.press('Control+v');
  await expect(page.getByText('300 rows')).toBeVisible();
  // One copied cell fills all that is selected.
  await cell(page, 1, 'unitPrice').click();
  await page.keyboard.press('Control+Space');
  await page.evaluate(() => navigator.clipboard.writeText('1.50'));
  await page.keyboard.press('Control+v');
  await expect(saving).toContainText('The server does not answer');
  expect(await page.locator('[data-grid] tbody tr[data-row]').count(), 'only what is in sight is there').toBeLessThan(80);
  await page.keyboard.press('Control+End');
  await expect(page.locator('[data-row="299"]')).toBeVisible();
  await page.keyboard.press('Control+Home');
  // Quantity by price in all rows: the amount of each from its own figures, 300 at once.
  const amounts = Array.from({ length: 300 }, (_, i) => (((i % 9) + 1) * 1.5).toFixed(2));
  await cell(page, 1, 'amount').click();
  await page.evaluate((text) => navigator.clipboard.writeText(text), amounts.join('\n'));
  await page.keyboard.press('Control+v');
  const total = amounts.reduce((n, a) => n + Number(a), 0).toFixed(2);
  await expect(page.locator('[data-grid] tfoot')).toContainText(Number(total).toLocaleString('en-GB', { minimumFractionDigits: 2 }));
  await page.clock.install();
  await page.clock.fastForward(60_000);
  await page.clock.resume();
  await page.unroute('**/api/companies/*/bills/*');
  await expect(saving).toHaveText('Saved', { timeout: 40_000 });
  await page.reload();
  await expect(page.getByText('300 rows')).toBeVisible();
  await page.getByRole('button', { name: 'Choose one for all' }).first().click();
  await page.keyboard.type('6010');
  await expect(page.getByRole('option', { name: /6010/ })).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(cell(page, 3, 'accountId')).toHaveText(/^6010/);
  await expect(saving).toHaveText('Saved');
  // One row that does not make its amount says so itself.
  await cell(page, 2, 'amount').click();
  await page.keyboard.type('9.99');
  await page.keyboard.press('Enter');
  const says = page.getByText('2 × 1.5 = 3.00');
  await expect(says).toBeVisible();
  const [note, amount] = [(await says.boundingBox())!, (await page.getByText('9.99', { exact: true }).boundingBox())!];
  expect(note.y + 2, 'below the amount, not over it').toBeGreaterThanOrEqual(amount.y + amount.height - 6);
  expect((await page.locator('[data-row="1"]').boundingBox())!.height).toBeGreaterThan(40);
});
