import { readFileSync } from 'node:fs';
import { expect, test, type Page } from '@playwright/test';
import { billByHand, signIn } from './arrivals.ts';
import { cell } from './grid.ts';

const heads = 'Account number;Account name;Type;Sub-account of;VAT code;Valid from';
const choose = (page: Page, name: string, rows: string[]) =>
  page.getByLabel('File', { exact: true }).setInputFiles({
    name,
    mimeType: 'text/csv',
    buffer: Buffer.from([heads, ...rows].join('\r\n')),
  });
const does = (page: Page) => page.getByLabel('What it would do');

test('a chart from a file: its errors are named, mended and brought in; the new account is there at once in another browser, with its tax', async ({
  page,
  browser,
}) => {
  const ines = await (await browser.newContext()).newPage();
  await signIn(ines, 'Ines Okafor');
  await billByHand(ines, 'Quillhaven');
  await cell(ines, 1, 'accountId').click();
  await ines.keyboard.type('greenhouse gas');
  await expect(ines.getByText('Nothing fits “greenhouse gas”.')).toBeVisible();
  await ines.keyboard.press('Escape');
  // What stands there again is marked: typing replaces it.
  await ines.keyboard.type('greenhouse gas');
  await expect(ines.getByText('Nothing fits “greenhouse gas”.')).toBeVisible();
  await ines.keyboard.press('Escape');
  await cell(ines, 1, 'taxCodeId').click();
  await ines.keyboard.press('Delete');
  await expect(cell(ines, 1, 'taxCodeId')).toHaveText('');
  await cell(ines, 1, 'accountId').click();

  await signIn(page, 'Kit Arden');
  await page.goto('/settings/accounts');
  await page.getByRole('button', { name: 'Files' }).click();
  await page.getByRole('menuitem', { name: 'Bring in from a file …' }).click();
  await choose(page, 'chart.csv', ['E801;Greenhouse gas;cost;E800;R5;', 'E800;Greenhouse energy;expense;;;', 'E802;;expense;E800;S19;']);
  await expect(does(page)).toHaveText(/1 new account.*2 rows with errors/);
  const wrong = page.getByRole('region', { name: 'What is wrong' });
  await expect(wrong.getByRole('row').filter({ hasText: 'cost' })).toContainText('“cost” is none of: expense');
  await page.getByLabel('Search what is wrong').fill('S19');
  await expect(wrong.getByRole('row')).toHaveCount(2);
  await expect(wrong.getByRole('row').nth(1)).toContainText('VAT code');
  await page.getByLabel('What VAT code is').selectOption({ label: 'left out' });
  await expect(wrong.getByText('Nothing fits.')).toBeVisible();
  await page.getByRole('link', { name: 'Another file' }).click();
  await choose(page, 'chart-2.csv', [
    'E801;Greenhouse gas;expense;E800;R5;1 Jan 2026',
    'E800;Greenhouse energy;expense;;;',
    'E802;Greenhouse oil;expense;E800;S20;',
  ]);
  // As it was said for the last file with these heads.
  await expect(page.getByLabel('What VAT code is')).toHaveValue('');
  await page.getByLabel('What VAT code is').selectOption({ label: 'Usual tax code' });
  await expect(does(page)).toHaveText('3 new accounts');
  await page.keyboard.press('Control+Enter');
  await expect(page.getByText('3 made.')).toBeVisible();

  await ines.keyboard.type('greenhouse gas');
  await expect(ines.getByRole('option', { name: /E801/ })).toBeVisible();
  await ines.keyboard.press('Enter');
  await expect(cell(ines, 1, 'taxCodeId')).toHaveText('R5');
  await ines.keyboard.press('Control+z');
  await expect(cell(ines, 1, 'taxCodeId')).toHaveText('');

  await page.getByRole('link', { name: 'To the accounts' }).click();
  await page.getByLabel('Search accounts').fill('E80');
  await expect(page.getByRole('row').filter({ hasText: 'Greenhouse gas' })).toContainText('E800 Greenhouse energy');
  await page.getByRole('button', { name: 'Files' }).click();
  const [saved] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('menuitem', { name: 'Save what is found as CSV' }).click(),
  ]);
  expect(saved.suggestedFilename()).toBe('accounts.csv');
  const rows = readFileSync((await saved.path())!, 'utf8')
    .trim()
    .split('\r\n');
  expect(rows).toHaveLength(4);
  expect(rows[2]).toBe('E801,Greenhouse gas,Expense,expense,E800,R5,no,yes,,,yes,2026-01-01,');
});
