import { expect, test } from '@playwright/test';
import { makePdf } from '@ledgerline/documents/maker';
import { arrival, arrivals, billByHand, invoiceOf, signIn, upload } from './arrivals.ts';
import { cell } from './grid.ts';

test('a rule is made of a row in two keys, tried on the last year, and codes the next invoice; the supplier shows it', async ({ page }) => {
  const invoice = invoiceOf(0, 'E2E-R1'),
    said = 'Scaffold tower hire',
    lines = invoice.lines.map((l, i) => (i === 0 ? { ...l, text: said, code: null } : l));
  await signIn(page, 'Ines Okafor');
  await billByHand(page, 'Quillhaven');
  await cell(page, 1, 'description').click();
  await page.keyboard.type(said);
  await cell(page, 1, 'accountId').click();
  await page.keyboard.type('6540');
  await expect(page.getByRole('option', { name: /6540/ })).toBeVisible();
  await page.keyboard.press('Enter');
  await cell(page, 1, 'accountId').click();
  await page.keyboard.press('Alt+u');
  const dialog = page.getByRole('dialog', { name: 'New rule' });
  await expect(dialog.getByLabel('that say')).toHaveValue(said);
  await expect(dialog.getByRole('region', { name: 'Tried on the last year' })).toContainText('No line of the last year is like this.');
  await page.keyboard.press('Enter');
  await expect(dialog).toHaveCount(0);
  await arrivals(page);
  await upload(page, 'rule.pdf', 'application/pdf', await makePdf({ ...invoice, lines }));
  await arrival(page, 'E2E-R1').getByRole('link', { name: /Quillhaven/ }).click(); // prettier-ignore
  await expect(cell(page, 1, 'accountId')).toContainText('6540');
  await cell(page, 1, 'accountId').click();
  await expect(page.getByText(`By a rule for “${said}” from this supplier`)).toBeVisible();
  await page.goto('/suppliers');
  await page.getByText('Quillhaven').first().click();
  await page.getByRole('button', { name: 'Coding' }).click();
  const learned = page.getByRole('dialog', { name: /How lines of Quillhaven/ });
  await expect(learned).toContainText(`“${said}”`);
  await learned.getByRole('button', { name: 'Change …' }).first().click();
  await page.getByLabel('It holds; without this it says nothing').uncheck();
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(learned).toContainText('off');
});

test('uncoded rows of several bills are coded alike by keys', async ({ page }) => {
  await signIn(page, 'Ines Okafor');
  for (const text of ['Marquee pegs, long', 'Marquee pegs, long', 'Marquee lights']) {
    await billByHand(page, 'Quillhaven');
    await cell(page, 1, 'description').click();
    await page.keyboard.type(text);
    await cell(page, 1, 'amount').click();
    await page.keyboard.type('40');
    await cell(page, 1, 'accountId').click();
    await page.keyboard.press('Delete');
    await cell(page, 1, 'description').click();
    await expect(cell(page, 1, 'accountId').locator('.wanted')).toBeVisible();
    await expect(page.getByRole('status', { name: 'Saving' })).toHaveText('Saved');
  }
  await page.goto('/bills/alike');
  const row = (text: string) => page.getByRole('row', { name: new RegExp(text) });
  await expect(row('Marquee pegs')).toContainText('2');
  await row('Marquee lights').getByRole('checkbox').check();
  await row('Marquee pegs').getByRole('checkbox').check();
  await page.getByRole('combobox', { name: 'Account' }).click();
  await page.keyboard.type('6940');
  await expect(page.getByRole('option', { name: /6940/ })).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'Code 3 rows' })).toBeEnabled();
  await page.keyboard.press('Enter');
  await expect(page.getByText('3 rows on 3 bills coded.')).toBeVisible();
  await expect(row('Marquee')).toHaveCount(0);
});
