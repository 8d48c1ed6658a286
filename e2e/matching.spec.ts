import { expect, test, type Page } from '@playwright/test';
import { makePdf } from '@ledgerline/documents/maker';
import { suppliers } from '@ledgerline/documents/suppliers';
import { arrival, arrivals, invoiceOf, signIn, today, upload } from './arrivals.ts';
import { cell } from './grid.ts';

const quillhaven = suppliers.findIndex((s) => s.name.startsWith('Quillhaven'));
const invoice = (number: string, order: string | null, lines = 2) => ({ ...invoiceOf(quillhaven, number, lines), purchaseOrder: order });

/** Makes an order for what an invoice bills, and gives its id; `change` makes a line another one. */
async function ordered(
  page: Page,
  of: ReturnType<typeof invoice>,
  number: string,
  change: (line: { quantity: string; unitPrice: string }, i: number) => object = () => ({}),
) {
  const { me } = (await (await page.request.get('/api/session')).json()) as { me: { companies: { id: string; code: string }[] } };
  const at = `/api/companies/${me.companies.find((c) => c.code === 'MBG')!.id}`;
  const { choices } = (await (await page.request.get(`${at}/choices?of=suppliers&q=Quillhaven`)).json()) as { choices: { id: string }[] };
  const lines = of.lines.map((l, i) => {
    const line = { itemId: null, code: l.code, description: l.text, quantity: l.quantity, unit: l.unit, unitPrice: l.price, coding: {} };
    return { ...line, ...change(line, i) };
  });
  const headers = { origin: new URL(page.url()).origin };
  const data = { number, supplierId: choices[0]!.id, orderDate: today, currency: 'GBP', note: null, active: true, lines };
  const made = await page.request.post(`${at}/orders`, { data, headers });
  expect(made.status(), await made.text()).toBe(200);
  return ((await made.json()) as { id: string }).id;
}
/** Books all that came of an order, on its page. */
async function cameAll(page: Page, id: string): Promise<void> {
  await page.goto(`/orders/${id}`);
  await page.getByRole('button', { name: 'Book what came' }).click();
  await page.getByRole('dialog').getByLabel('Delivery note').fill('DN 77');
  await page.getByRole('button', { name: 'Book it' }).click();
  await expect(page.getByRole('region', { name: 'Receipts' })).toContainText('DN 77');
}
/** Lets a bill come and opens it at the desk. */
async function came(page: Page, of: ReturnType<typeof invoice>): Promise<void> {
  await page.getByRole('link', { name: /^Arrivals/ }).click();
  await upload(page, `${of.number}.pdf`, 'application/pdf', await makePdf(of));
  await arrival(page, of.number).getByRole('link', { name: /Quillhaven/ }).click(); // prettier-ignore
  await expect(page.getByLabel('Invoice number')).toHaveValue(of.number);
}
const exceptions = (page: Page) => page.getByRole('list', { name: 'Exceptions' });

test('a price above the order stops the bill; it is seen beside the order, and a debit note lets it go on', async ({ page }) => {
  await arrivals(page);
  const bill = invoice('QGR-30101', 'PO-8101');
  const id = await ordered(page, bill, 'PO-8101', (l, i) => (i === 0 ? { unitPrice: (Number(l.unitPrice) - 1).toFixed(2), needsReceipt: false } : { needsReceipt: false })); // prettier-ignore
  await came(page, bill);
  await expect(exceptions(page)).toContainText('order PO-8101, line 1 says');
  await expect(page.getByText('Order PO-8101: all 2 rows found, 1 line is not as ordered')).toBeVisible();
  await page.keyboard.press('Control+Enter');
  await expect(page.locator('[data-sonner-toast]').filter({ hasText: 'line 1 says' })).toBeVisible();
  await page.keyboard.press('Alt+b');
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByRole('row').filter({ hasText: 'PO-8101, 1' })).toContainText('1.00 each too dear');
  await expect(dialog.getByRole('row').filter({ hasText: 'PO-8101, 2' })).toContainText('as ordered');
  await dialog.getByRole('button', { name: 'Ask about it' }).click();
  await dialog.getByLabel('Who is asked').selectOption('Tobias Fenn');
  await dialog.getByRole('button', { name: 'Ask', exact: true }).click();
  await expect(page.getByText('Tobias Fenn was asked')).toBeVisible();
  await dialog.getByRole('button', { name: /^Debit note for/ }).click();
  await expect(exceptions(page)).toHaveCount(0);
  await expect(page.getByRole('region', { name: 'Notes' })).toContainText('1.00 each too dear');
  await page.keyboard.press('Control+Enter');
  await expect(page.getByText('QGR-30101 went to approval')).toBeVisible();
  await page.goto(`/bills?q=${encodeURIComponent('DN-QGR-30101')}`);
  await expect(page.getByRole('row').filter({ hasText: 'DN-QGR-30101' })).toBeVisible();
  await page.goto(`/orders/${id}`);
  await expect(page.getByRole('region', { name: 'Bills' })).toContainText('QGR-30101');
});

test('a bill whose goods have not come waits for them, and comes back with the receipt', async ({ page }) => {
  await arrivals(page);
  const bill = invoice('QGR-30102', 'PO-8102');
  const id = await ordered(page, bill, 'PO-8102');
  await came(page, bill);
  await expect(exceptions(page)).toContainText('nothing has come so far');
  await page.keyboard.press('Alt+b');
  await page.getByRole('button', { name: 'Wait for the goods' }).click();
  await expect(page.getByRole('button', { name: 'Take up again' })).toBeVisible();
  await cameAll(page, id);
  await page.getByRole('region', { name: 'Bills' }).getByRole('link', { name: 'QGR-30102' }).click();
  await expect(page.getByText('Order PO-8102: all 2 rows as ordered')).toBeVisible();
  // Until its bill is posted, what has come is to be accrued.
  await page.goto('/orders/not-billed');
  await expect(page.getByRole('row').filter({ hasText: 'PO-8102, 1' })).toContainText(bill.lines[0]!.amount);
  await page.goBack();
  await expect(exceptions(page)).toHaveCount(0);
});

test('a number that is no order asks; the right one is typed, the order’s price is taken, a row is placed by hand', async ({ page }) => {
  await arrivals(page);
  const bill = invoice('QGR-30103', 'PO-8999');
  await ordered(page, bill, 'PO-8103', (l, i) => (i === 0 ? { unitPrice: (Number(l.unitPrice) - 1).toFixed(2), needsReceipt: false } : { code: null, description: 'Something else altogether', needsReceipt: false })); // prettier-ignore
  await came(page, bill);
  await expect(exceptions(page)).toContainText('There is no order PO-8999 with this supplier.');
  await page.getByLabel('Order', { exact: true }).fill('8103');
  await page.getByLabel('Order', { exact: true }).press('Tab');
  await expect(exceptions(page)).toContainText('line 1 says');
  await expect(exceptions(page)).toContainText('Row 2 is in none of its orders.');
  const price = await cell(page, 1, 'unitPrice').textContent();
  await page.getByRole('button', { name: 'Take the order’s price' }).click();
  await expect(cell(page, 1, 'unitPrice')).toHaveText((Number(price) - 1).toFixed(2));
  await expect(page.getByLabel('Proof')).not.toContainText('Adds up.');
  await page.keyboard.press('Control+z');
  await expect(cell(page, 1, 'unitPrice')).toHaveText(price!);
  await page.getByRole('button', { name: 'Beside the order' }).click();
  const choice = page.getByLabel('Line of row 2').locator('option').filter({ hasText: 'Something else' });
  await page.getByLabel('Line of row 2').selectOption((await choice.getAttribute('value'))!);
  await expect(page.getByRole('row').filter({ hasText: 'PO-8103, 2' })).toContainText('as ordered');
  // No order at all, in one action, and back.
  await page.getByRole('button', { name: 'It is of no order' }).click();
  await expect(page.getByText('This bill is of no order')).toBeVisible();
  await page.getByRole('button', { name: 'It has an order' }).click();
  await expect(page.getByRole('row').filter({ hasText: 'PO-8103, 1' })).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toHaveCount(0);
});

test('where the company lets it, a bill that is wholly as ordered goes to approval by itself, marked so', async ({ page }) => {
  await signIn(page, 'Kit Arden');
  await page.goto('/settings/matching');
  const passes = page.getByLabel('A bill that is wholly as ordered goes to approval by itself');
  await passes.check();
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('Kept. Bills in hand were checked again')).toBeVisible();
  await arrivals(page);
  const bill = invoice('QGR-30104', 'PO-8104');
  const id = await ordered(page, bill, 'PO-8104');
  await cameAll(page, id);
  await came(page, bill);
  await expect(page.getByText('Order PO-8104: went on by itself, all of it is as ordered')).toBeVisible();
  await expect(page.getByRole('list', { name: 'Stage: coded' })).toBeVisible();
  await signIn(page, 'Kit Arden');
  await page.goto('/settings/matching');
  await passes.uncheck();
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('Kept. Bills in hand were checked again')).toBeVisible();
});

test('less came than is billed: it stops, and says how much came', async ({ page }) => {
  await arrivals(page);
  const bill = invoice('QGR-30105', 'PO-8105');
  const id = await ordered(page, bill, 'PO-8105');
  await page.goto(`/orders/${id}`);
  await page.getByRole('button', { name: 'Book what came' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Delivery note').fill('DN 80');
  const short = Number(bill.lines[0]!.quantity) - 1;
  await dialog.getByLabel('Came now of line 1').fill(String(short));
  await page.getByRole('button', { name: 'Book it' }).click();
  await expect(page.getByRole('region', { name: 'Receipts' })).toContainText('DN 80');
  await came(page, bill);
  await expect(exceptions(page)).toContainText(`Row 1 bills ${bill.lines[0]!.quantity}`);
  await expect(exceptions(page)).toContainText(`${short}`);
});

test('what is kept in stock comes as rows of stock', async ({ page }) => {
  const bill = invoice('QGR-30106', null);
  await signIn(page, 'Kit Arden');
  await page.goto('/settings/items');
  await page.getByRole('button', { name: 'New item' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Code', { exact: true }).fill('STOCKED-1');
  await dialog.getByLabel('Name', { exact: true }).fill('Something for the store');
  await dialog.getByLabel('Also called').fill(bill.lines[0]!.code!);
  await dialog.getByLabel(/Kept in stock/).check();
  await page.getByRole('button', { name: 'Make item' }).click();
  await expect(page.getByRole('row').filter({ hasText: 'STOCKED-1' })).toBeVisible();
  await arrivals(page);
  await came(page, bill);
  await expect(page.locator('[data-row="0"] th')).toHaveText('s1');
  await expect(page.locator('[data-row="1"] th')).toHaveText('2');
  // It is goods again by the key, all the way round.
  await cell(page, 1, 'quantity').click();
  await page.keyboard.press('Alt+k');
  await expect(page.locator('[data-row="0"] th')).toHaveText('a1');
  await expect(exceptions(page)).toContainText('Row 1 is an asset and on an account that is none of assets.');
  await page.keyboard.press('Control+z');
  await expect(page.locator('[data-row="0"] th')).toHaveText('s1');
});
