import { expect, test, type Page } from '@playwright/test';
import { makeInvoice } from '@ledgerline/documents/invoice';
import { makePdf } from '@ledgerline/documents/maker';
import { seeded } from '@ledgerline/documents/random';
import { suppliers } from '@ledgerline/documents/suppliers';
import { arrival, arrivals, signIn, today, upload } from './arrivals.ts';
import { cell } from './grid.ts';

type Sold = [text: string, price: string, rate: string];
/** An invoice of one of the demo's suppliers for other things than it usually sells, opened at the desk of its company. */
async function opened(page: Page, supplier: string, company: string, number: string, ...sold: Sold[]): Promise<void> {
  const own = suppliers.find((s) => s.name.startsWith(supplier))!;
  const items = sold.map(([text, price, rate]) => ({ ...own.items[0]!, code: null, text, price, rate }));
  const invoice = makeInvoice({ ...own, items }, seeded(11), { number, issueDate: today, lines: items.length });
  await arrivals(page);
  await page.getByLabel('Company', { exact: true }).selectOption({ label: company });
  await page.getByRole('link', { name: /^Arrivals/ }).click();
  await upload(page, `${number}.pdf`, 'application/pdf', await makePdf(invoice));
  await arrival(page, number).getByRole('link', { name: new RegExp(supplier) }).click(); // prettier-ignore
  await expect(page.getByLabel('Proof')).toContainText('Adds up.');
}
const taxCodes = async (page: Page, rows: number) => {
  await cell(page, 1, 'description').click();
  return Promise.all(Array.from({ length: rows }, (_, i) => cell(page, i + 1, 'taxCodeId').textContent()));
};

test('a utility bill with parts at the standard rate and at none: what its tax explains is offered, and taken in one press', async ({
  page,
}) => {
  await opened(page, 'Otterlea', 'Marrowby Botanic Gardens', 'E2E-V1', ['Electricity, October', '118.40', '20'], ['Climate levy relief', '12.00', '0']); // prettier-ignore
  const exceptions = page.getByRole('list', { name: 'Exceptions' });
  await expect(exceptions).toContainText('The tax codes make');
  await exceptions.getByRole('button', { name: /S20, .* (EX|Z0)$/ }).first().click(); // prettier-ignore
  await expect(page.getByText('The tax codes make')).toHaveCount(0);
  const [standard, none] = await taxCodes(page, 2);
  expect([standard, ['EX', 'Z0'].includes(none ?? '')]).toEqual(['S20', true]);
});

test('a French bill at two rates is coded with both', async ({ page }) => {
  await opened(page, 'Pépinières', 'Jardin Marrowby SARL', 'E2E-V2', ['Hortensia, pot 3 l', '6.40', '10'], ['Jardinière en zinc', '41.50', '20']); // prettier-ignore
  expect(await taxCodes(page, 2)).toEqual(['I10', 'N20']);
  await expect(page.getByText('The tax codes make')).toHaveCount(0);
});

test('reverse charge is owed and reclaimed at once: the entry says both before it is posted', async ({ page }) => {
  await opened(page, 'De Drie Tulpen', 'Marrowby Nursery Trading Ltd', 'E2E-V3', ['Tulipa, zift 12/+', '40.00', '0'], ['Narcis 12/14', '25.00', '0']); // prettier-ignore
  for (const [field, code] of [
    ['accountId', '5010'],
    ['costCentreId', '410'],
    ['taxCodeId', 'RC20'],
  ] as const) {
    await cell(page, 1, field).click();
    await page.keyboard.type(code);
    await expect(page.getByRole('option', { name: new RegExp(code) })).toBeVisible();
    await page.keyboard.press('Enter');
    await cell(page, 1, field).click();
    await page.keyboard.press('Alt+l');
  }
  expect(await taxCodes(page, 2)).toEqual(['RC20', 'RC20']);
  await expect(page.getByText('The tax codes make')).toHaveCount(0);
  await expect(page.getByRole('status', { name: 'Saving' })).toHaveText('Saved');
  const { companies } = (await (await page.request.get('/api/session')).json()).me as { companies: { id: string; name: string }[] };
  const company = companies.find((c) => c.name.startsWith('Marrowby Nursery'))!.id;
  const entry = await page.request.get(`/api/companies/${company}/bills/${page.url().split('/').at(-1)}/journal`);
  expect(entry.status(), await entry.text()).toBe(200);
  const lines = ((await entry.json()) as { lines: { taxCode: string | null; description: string; debit: string; credit: string }[] }).lines;
  const [reclaimed, owed] = [lines.find((l) => /^RC20 on/.test(l.description)), lines.find((l) => /^RC20 owed/.test(l.description))];
  expect(Number(reclaimed!.debit)).toBeGreaterThan(0);
  expect(owed!.credit).toBe(reclaimed!.debit);
});

test('a dollar bill with sales tax waits for a code of its rate, and takes it as soon as there is one', async ({ page, browser }) => {
  await opened(page, 'Hearthstone', 'Marrowby Nursery Trading Ltd', 'E2E-V4', ['Seed cleaner, bench', '880.00', '7.25']);
  await expect(page.locator('input[aria-label="Currency"]')).toHaveValue('USD');
  const kit = await (await browser.newContext()).newPage();
  await signIn(kit, 'Kit Arden');
  await kit.getByLabel('Company', { exact: true }).selectOption({ label: 'Marrowby Nursery Trading Ltd' });
  await kit.goto('/settings/tax-codes');
  await kit.getByRole('button', { name: 'New tax code' }).click();
  await kit.getByLabel('Code', { exact: true }).fill('ST725');
  await kit.getByLabel('Name', { exact: true }).fill('Sales tax 7.25%');
  await kit.getByLabel('Rate, %').fill('7.25');
  await kit.getByLabel('Reclaimed, %').fill('0');
  await kit.getByRole('combobox', { name: 'Account for tax that is reclaimed' }).click();
  await kit.keyboard.type('1800');
  await expect(kit.getByRole('option', { name: /1800/ })).toBeVisible();
  await kit.keyboard.press('Enter');
  await kit.getByRole('button', { name: 'Make tax code' }).click();
  await expect(kit.getByText('Sales tax 7.25%')).toBeVisible();
  await cell(page, 1, 'taxCodeId').click();
  await page.keyboard.type('ST7');
  await expect(page.getByRole('option', { name: /ST725/ })).toBeVisible();
  await page.keyboard.press('Enter');
  await expect.poll(() => taxCodes(page, 1)).toEqual(['ST725']);
  await expect(page.getByText('The tax codes make')).toHaveCount(0);
});

test('what was posted is summed by tax code, and a figure leads to its entry', async ({ page }) => {
  await signIn(page, 'Halina Voss');
  await page.goto('/ledger/tax');
  await page.getByRole('button', { name: 'Last year' }).click();
  await page.getByRole('button', { name: /^S20/ }).first().click(); // prettier-ignore
  const behind = page.getByRole('region', { name: 'Behind S20' });
  await expect(behind.getByRole('row').nth(1)).toContainText('invoice');
  const saved = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Files' }).click();
  await page.getByRole('menuitem', { name: 'Save its entries as CSV' }).click();
  expect((await saved).suggestedFilename()).toMatch(/^tax \d{4}-01-01 to \d{4}-12-31\.csv$/);
  await behind.getByRole('row').nth(1).click();
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/\/ledger\/[0-9a-f-]{36}$/);
});
