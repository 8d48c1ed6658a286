import { expect, test, type Page } from '@playwright/test';
import { makePdf } from '@ledgerline/documents/maker';
import { invoiceOf, upload } from './arrivals.ts';
import { serve } from './server.ts';
import { cell } from './grid.ts';
import { portOf } from './parts.ts';

const base = `http://127.0.0.1:${portOf('empty web')}`;
let end: () => Promise<void>;
test.beforeAll(async () => {
  test.setTimeout(180_000);
  end = await serve({ port: portOf('empty web'), smtpPort: portOf('empty mail'), empty: true });
});
test.afterAll(() => end());
// A whole set-up by hand is long: some eighty steps.
test.setTimeout(180_000);

const fill = async (page: Page, fields: Record<string, string>) => {
  for (const [label, value] of Object.entries(fields)) await page.getByLabel(label, { exact: true }).fill(value);
};
async function signIn(page: Page, email: string, password: string): Promise<void> {
  await page.getByRole('button', { name: 'Sign out' }).click();
  await page.getByLabel('Mail address').fill(email);
  await page.getByLabel('Password').fill(password);
  await page.getByRole('button', { name: 'Sign in', exact: true }).click();
  await expect(page.getByRole('navigation', { name: 'Places' })).toBeVisible();
}
const settings = (page: Page, area: string) => page.getByRole('navigation', { name: 'Settings' }).getByRole('link', { name: area }).click();

test('an empty organisation: from sign-up, through people and lists made by screens, to the first posted bill', async ({ page }) => {
  await page.goto(base);
  await page.getByRole('button', { name: 'Begin' }).click();
  await expect(page.getByText('Needs at least 2 characters.').first()).toBeVisible();
  await fill(page, { Organisation: 'Marrowby', 'First company': 'Marrowby Botanic Gardens', 'Your name': 'Kit Arden' });
  await fill(page, { 'Your mail address': 'kit@marrowby.example', Password: 'glasshouse and more' });
  await page.getByRole('button', { name: 'Begin' }).click();
  // The first steps lead on, and say what is done.
  const steps = page.getByRole('region', { name: 'First steps' });
  await expect(steps).toContainText('0 of 7 are done. Next: the company.');
  await steps.getByRole('link', { name: 'Go on' }).click();
  const step = (title: string) => page.getByRole('list', { name: 'First steps' }).getByRole('listitem').filter({ hasText: title });
  await step('Tax codes').getByRole('button', { name: 'They are right' }).click();
  await expect(step('Tax codes').getByRole('img', { name: 'Done' })).toBeVisible();
  await step('The mailbox').getByRole('button', { name: 'Nothing comes by mail' }).click();
  await expect(step('The mailbox').getByRole('button', { name: 'Take it up again' })).toBeVisible();
  await step('People').getByRole('link', { name: 'Add somebody' }).click();

  // A sole administrator is told that a second person is needed, and adds one.
  await expect(page.getByRole('status').filter({ hasText: 'a second person is needed' })).toBeVisible();
  await page.getByRole('button', { name: 'New person' }).click();
  const dialog = page.getByRole('dialog');
  await fill(page, { Name: 'Halina Voss', 'Mail address': 'halina@marrowby.example', 'First password': 'counting the pennies' });
  await dialog.getByLabel(/^controller/).check();
  await dialog.getByRole('button', { name: 'Add person' }).click();
  await expect(page.getByRole('row').filter({ hasText: 'Halina Voss' })).toContainText('approver, controller');
  await expect(page.getByText('a second person is needed')).toHaveCount(0);

  await settings(page, 'First steps');
  await expect(step('People').getByRole('img', { name: 'Done' })).toBeVisible();
  await settings(page, 'Cost centres');
  await page.getByRole('button', { name: 'New cost centre' }).click();
  await fill(page, { Code: '200', Name: 'Arboretum' });
  await dialog.getByRole('button', { name: 'Make cost centre' }).click();
  await expect(page.getByRole('row').filter({ hasText: 'Arboretum' })).toBeVisible();
  await settings(page, 'Accounts');
  await page.getByRole('button', { name: 'New account' }).click();
  await fill(page, { Code: '6150', Name: 'Glasshouse repairs', Group: 'Premises' });
  await dialog.getByLabel('cost centre', { exact: true }).check();
  await dialog.getByRole('button', { name: 'Make account' }).click();
  await page.getByRole('searchbox').fill('glasshouse');
  await expect(page.getByRole('row').filter({ hasText: 'Glasshouse repairs' })).toContainText('cost centre');
  await settings(page, 'Exchange rates');
  await page.getByRole('button', { name: 'New rate' }).click();
  await fill(page, { Currency: 'EUR', '1 unit in GBP': '0.86' });
  await dialog.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('row').filter({ hasText: 'EUR' })).toContainText('0.86');
  await settings(page, 'Tax codes');
  await page.getByRole('button', { name: 'New tax code' }).click();
  await fill(page, { Code: 'R12', Name: 'Reduced rate 12.5%', 'Rate, %': '12.5' });
  await dialog.getByRole('combobox', { name: 'Account for tax that is reclaimed' }).fill('1800');
  await dialog.getByRole('combobox', { name: 'Account for tax that is reclaimed' }).press('Enter');
  await expect(dialog.getByRole('combobox', { name: 'Account for tax that is reclaimed' })).toHaveValue(/^1800 /);
  await dialog.getByRole('button', { name: 'Make tax code' }).click();
  await expect(page.getByRole('row').filter({ hasText: 'R12' })).toContainText('12.5%');

  // The first document: its supplier is made from what the page says, its lines are coded by typing.
  const invoice = invoiceOf(0, 'FIRST-1', 2);
  await page.getByRole('link', { name: /^Arrivals/ }).click();
  await upload(page, 'first.pdf', 'application/pdf', await makePdf(invoice));
  await page.getByRole('link', { name: /FIRST-1/ }).click();
  await page.getByRole('button', { name: 'Make this supplier' }).click();
  await expect(page.getByText('is a supplier now')).toBeVisible();
  const exceptions = page.getByRole('list', { name: 'Exceptions' });
  await expect(exceptions).toContainText('a second person still has to verify');
  for (const row of [1, 2]) {
    await cell(page, row, 'accountId').click();
    await page.keyboard.type('glassh');
    await page.keyboard.press('Tab');
    await expect(cell(page, row, 'accountId')).toHaveText('6150 Glasshouse repairs');
    await page.keyboard.type('arbo');
    await page.keyboard.press('Tab');
    await expect(cell(page, row, 'costCentreId')).toHaveText('200 Arboretum');
    await page.keyboard.type('s20');
    await page.keyboard.press('Enter');
    await expect(cell(page, row, 'taxCodeId')).toHaveText('S20');
  }
  await expect(page.getByRole('status', { name: 'Saving' })).toHaveText('Saved');
  await page.keyboard.press('Control+Enter');
  await expect(page.locator('[data-sonner-toast]').filter({ hasText: 'a second person still has to verify' })).toBeVisible();

  // The second person checks the bank details, and says how.
  await signIn(page, 'halina@marrowby.example', 'counting the pennies');
  await page.getByRole('link', { name: /^Suppliers/ }).click();
  await page.getByRole('row').filter({ hasText: 'Quillhaven' }).click();
  await page.getByRole('button', { name: 'Verify' }).click();
  await fill(page, { 'How you made sure': 'Called the number on the contract' });
  await dialog.getByRole('button', { name: 'It is right' }).click();
  await expect(page.getByRole('region', { name: 'Bank accounts' })).toContainText('Halina Voss: Called the number on the contract');

  await signIn(page, 'kit@marrowby.example', 'glasshouse and more');
  await page.getByRole('link', { name: /^Bills/ }).click();
  await page.getByRole('row').filter({ hasText: 'FIRST-1' }).click();
  await expect(page.getByLabel('Invoice number')).toHaveValue('FIRST-1');
  await expect(exceptions).toHaveCount(0);
  await page.keyboard.press('Control+Enter');
  await expect(page.getByText('FIRST-1 went to approval')).toBeVisible();
  // Whoever coded it cannot approve it, though they have the role.
  await page.getByRole('link', { name: /^Approvals/ }).click();
  await expect(page.getByText('Nothing waits for your decision.')).toBeVisible();

  await signIn(page, 'halina@marrowby.example', 'counting the pennies');
  await page.getByRole('link', { name: /^Approvals/ }).click();
  await expect(page.getByRole('button', { name: /^Approve/ })).toBeEnabled();
  await page.keyboard.press('a');
  await expect(page.getByText('FIRST-1 approved')).toBeVisible();
  await page.goto(`${base}/bills?q=stage:approved`);
  await page.getByRole('checkbox', { name: 'Mark FIRST-1' }).check();
  await page.getByRole('button', { name: 'Post 1' }).click();
  await expect(dialog.getByRole('button', { name: 'Post', exact: true })).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(page.getByText('1 bill posted')).toBeVisible();
  await page.getByRole('link', { name: /^Ledger/ }).click();
  await expect(page.getByRole('row').filter({ hasText: 'FIRST-1' })).toContainText(
    Number(invoice.gross).toLocaleString('en-GB', { minimumFractionDigits: 2 }),
  );
  await page.getByRole('link', { name: /^Settings/ }).click();
  await settings(page, 'Event log');
  await expect(page.getByRole('grid', { name: 'Event log' })).toContainText('bill posted');
});
