import { expect, test, type Browser, type Page } from '@playwright/test';
import { makePdf } from '@ledgerline/documents/maker';
import { suppliers } from '@ledgerline/documents/suppliers';
import { arrival, arrivals, billByHand, invoiceOf, signIn, upload } from './arrivals.ts';
import { cell } from './grid.ts';

async function opened(page: Page, of: string, number: string): Promise<string> {
  const index = suppliers.findIndex((s) => s.name.startsWith(of));
  await arrivals(page);
  await upload(page, `${number}.pdf`, 'application/pdf', await makePdf(invoiceOf(index, number)));
  await arrival(page, number)
    .getByRole('link', { name: new RegExp(of) })
    .click();
  await expect(page.getByTestId('page').locator('canvas')).toBeVisible();
  return page.url();
}
async function another(browser: Browser, name: string): Promise<Page> {
  const page = await (await browser.newContext()).newPage();
  await signIn(page, name);
  return page;
}
const field = (page: Page, name: string) => page.locator(`input[aria-label="${name}"]`);
const more = async (page: Page, item: string) => {
  await page.getByRole('button', { name: 'More', exact: true }).click();
  await page.getByRole('menuitem', { name: item }).click();
};

test('two at one bill see each other; who saves second chooses field by field, and nothing is lost', async ({ page, browser }) => {
  const url = await opened(page, 'Quillhaven', 'E2E-T1');
  const tobias = await another(browser, 'Tobias Fenn');
  await tobias.goto(url);
  await expect(page.getByRole('status', { name: 'Also here' })).toHaveText('Tobias Fenn is here');
  await expect(tobias.getByRole('status', { name: 'Also here' })).toHaveText('Ines Okafor is here');
  // Tobias types while his browser cannot reach the server; Ines saves the same field meanwhile.
  await tobias.route('**/api/companies/*/bills/*', (route) => (route.request().method() === 'PATCH' ? route.abort() : route.continue()));
  await field(tobias, 'Order').fill('PO-TOBIAS');
  await field(tobias, 'Order').press('Enter');
  await cell(tobias, 1, 'description').click();
  await tobias.keyboard.type('Typed by Tobias');
  await tobias.keyboard.press('Enter');
  await field(page, 'Order').fill('PO-INES');
  await field(page, 'Order').press('Enter');
  await expect(page.getByRole('status', { name: 'Saving' })).toHaveText('Saved');
  await tobias.unroute('**/api/companies/*/bills/*');
  await expect(tobias.getByText('PO-INES')).toBeVisible();
  await tobias.getByRole('button', { name: /PO-TOBIAS/ }).click();
  await expect(tobias.getByRole('status', { name: 'Saving' })).toHaveText('Saved');
  await expect(field(page, 'Order')).toHaveValue('PO-TOBIAS');
  await expect(cell(page, 1, 'description')).toHaveText('Typed by Tobias');
  await tobias.close();
  await expect(page.getByRole('status', { name: 'Also here' })).toHaveText('', { timeout: 45_000 });
});

test('a note names somebody, who finds it under Today; a bill goes from hand to hand and is set aside until a day', async ({
  page,
  browser,
}) => {
  const url = await opened(page, 'Mossgarth', 'E2E-T2');
  await page.keyboard.press('Alt+w');
  await page.keyboard.type('Is this yours? @marg');
  await page.keyboard.press('Enter');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('region', { name: 'Notes' })).toContainText('Is this yours? @Marguerite Sable');
  const marguerite = await another(browser, 'Marguerite Sable');
  const written = marguerite.getByRole('list', { name: 'Written to you' });
  await expect(written).toContainText('Is this yours?');
  await written.getByRole('link', { name: /E2E-T2/ }).click();
  await expect(marguerite.getByRole('region', { name: 'Notes' })).toContainText('Is this yours?');
  await marguerite.goto('/');
  await expect(marguerite.getByText('Waiting for you')).toBeVisible();
  await expect(written).toHaveCount(0);

  await page.keyboard.press('Escape');
  await page.keyboard.press('Alt+g');
  await expect(page.getByRole('button', { name: 'Ines Okafor (you)' })).toBeFocused();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  await expect(page.getByText('in the hands of Tobias Fenn')).toBeVisible();
  const tobias = await another(browser, 'Tobias Fenn');
  await tobias.goto('/bills?q=hands:me');
  await tobias.getByRole('row').filter({ hasText: 'E2E-T2' }).click();
  await expect(field(tobias, 'Invoice number')).toHaveValue('E2E-T2');
  await tobias.keyboard.press('Alt+s');
  await tobias.getByLabel('Why').fill('Waiting for the delivery');
  await tobias.getByRole('button', { name: 'In two weeks' }).click();
  await tobias.keyboard.press('Enter');
  await expect(tobias.getByText('E2E-T2 is set aside')).toBeVisible();
  await tobias.goto(url);
  await expect(tobias.getByText(/comes back on/)).toBeVisible();
  await tobias.keyboard.press('Alt+h');
  const history = tobias.getByRole('dialog', { name: 'Whole history' });
  await expect(history).toContainText('assigned');
  await expect(history).toContainText('“Waiting for the delivery”');
});

test('a bill by hand takes its document later, keeps another beside it, and repeats', async ({ page }) => {
  await signIn(page, 'Ines Okafor');
  await billByHand(page, 'Quillhaven');
  await expect(page.getByRole('heading', { name: /Quillhaven/ })).toBeVisible();
  const index = suppliers.findIndex((s) => s.name.startsWith('Quillhaven'));
  const file = async (number: string, name: string) => ({
    name,
    mimeType: 'application/pdf',
    buffer: Buffer.from(await makePdf(invoiceOf(index, number))),
  });
  await page.getByLabel('Choose the file …').setInputFiles(await file('E2E-H1', 'own.pdf'));
  await expect(field(page, 'Invoice number')).toHaveValue('E2E-H1');
  await expect(page.getByTestId('page').locator('canvas')).toBeVisible();
  await more(page, 'A document beside it …');
  await page.getByLabel('Choose files …').setInputFiles(await file('E2E-H2', 'order.pdf'));
  await page.getByRole('tab', { name: 'order.pdf' }).click();
  await expect(page.getByTestId('page').locator('canvas')).toBeVisible();
  await expect(page.getByTestId('page')).toHaveAttribute('data-drawn', 'true');
  await expect(page.getByRole('tab', { selected: true })).toHaveText('order.pdf');

  await more(page, 'Make it repeat …');
  const dialog = page.getByRole('dialog', { name: 'Make this bill repeat' });
  await dialog.getByLabel('Name').fill('Glass every month');
  await dialog.getByRole('button', { name: 'Make it repeat' }).click();
  await page.goto('/bills/repeating');
  await expect(page.getByRole('row').filter({ hasText: 'Glass every month' })).toContainText('every month');
});

test('marked bills are sent on together, what is not clean stays; a view is saved and found again', async ({ page, browser }) => {
  await opened(page, 'Quillhaven', 'E2E-V1');
  await opened(page, 'Quillhaven', 'E2E-V2');
  await field(page, 'Invoice number').fill('');
  await field(page, 'Invoice number').press('Enter');
  await expect(page.getByRole('status', { name: 'Saving' })).toHaveText('Saved');
  await page.goto('/bills?q=stage:read+quillhaven');
  await expect(page.getByRole('row').filter({ hasText: 'E2E-V1' })).toBeVisible();
  await page.getByRole('checkbox', { name: 'Mark E2E-V1' }).check();
  await page.getByRole('checkbox', { name: 'Mark the bill without a number' }).first().check();
  const bar = page.getByRole('toolbar', { name: 'Marked bills' });
  await bar.getByRole('button', { name: 'Send on 1 clean of 2' }).click();
  await expect(page.getByText('1 sent to approval')).toBeVisible();
  await expect(page.getByRole('row').filter({ hasText: 'E2E-V1' })).toHaveCount(0);
  await page.getByRole('button', { name: 'Save view …' }).click();
  await page.getByLabel('Name').fill('Glass to review');
  await page.getByLabel('For the whole team').check();
  await page.keyboard.press('Enter');
  const tobias = await another(browser, 'Tobias Fenn');
  await tobias.goto('/bills');
  await tobias.getByRole('button', { name: 'Glass to review' }).click();
  await expect(tobias).toHaveURL(/quillhaven/);
});
