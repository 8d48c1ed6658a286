import { expect, test } from '@playwright/test';
import { signIn } from './arrivals.ts';

test('carriage is shared over what came by keys, seen before, posted to where the goods are; and expensed again', async ({ page }) => {
  await signIn(page, 'Ines Okafor');
  await page.goto('/bills?q=MGM-20760');
  await page.getByRole('row').filter({ hasText: 'MGM-20760' }).click();
  const rows = page.locator('tr[data-row]');
  const shared = page.getByRole('gridcell', { name: /Row 4 is shared by value over 3 lines of what came/ });
  await expect(rows).toHaveCount(4);
  await rows.nth(3).locator('td').nth(1).click();
  await page.keyboard.press('Alt+p');
  const dialog = page.getByRole('dialog', { name: 'Share row 4 over what came' });
  const bears = dialog.getByRole('table', { name: 'Shared over' }).locator('tbody tr td:nth-child(9)');
  // What the bill itself bills, by value: 73.50, 3.64 and 86.80 of 163.94 share 30.00.
  await expect(bears).toHaveText(['13.45', '0.67', '15.88']);
  const other = async (basis: string) => dialog.getByLabel('By what').selectOption(basis);
  await other('weight');
  await expect(bears).toHaveText(['13.64', '1.09', '15.27']);
  await other('equally');
  await expect(bears).toHaveText(['10.00', '10.00', '10.00']);
  await other('by-hand');
  const first = dialog.getByLabel('Borne by Ericaceous blend, bark based, 50 l');
  await first.fill('9.00');
  await first.press('Tab');
  await expect(dialog.getByText('1.00 is still to be shared.')).toBeVisible();
  await expect(dialog.getByRole('button', { name: 'Share it' })).toBeDisabled();
  await other('value');
  // Goods of another order are found by words and taken by Enter; then they are left out again.
  await dialog.getByLabel('Find goods').fill('PO-1001 glazing');
  await expect(dialog.getByRole('listitem')).toHaveCount(1);
  await dialog.getByLabel('Find goods').press('Enter');
  await expect(bears).toHaveCount(4);
  await dialog.getByRole('button', { name: /Leave out Glazing bar/ }).click();
  await dialog.getByRole('button', { name: 'Share it' }).click();
  await expect(dialog).toHaveCount(0);
  await expect(shared).toBeVisible();
  await rows.nth(3).locator('td').nth(1).click();
  await page.keyboard.press('Alt+p');
  await dialog.getByRole('button', { name: 'Expense it as one' }).click();
  await expect(dialog).toHaveCount(0);
  await expect(shared).toHaveCount(0);
});

test('what had come and was not billed is posted for the end of a month and taken back by itself, once', async ({ page }) => {
  await signIn(page, 'Halina Voss');
  await page.goto('/orders/not-billed');
  // The last day of the month before: nothing that other journeys receive changes it.
  await page
    .getByRole('button', { name: /^(28|29|30|31) / })
    .first()
    .click();
  await page.getByRole('button', { name: 'Post it …' }).click();
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByRole('table', { name: 'Entry' }).locator('tfoot')).toContainText('2230');
  await dialog.getByRole('button', { name: 'Post both' }).click();
  await expect(dialog).toHaveCount(0);
  const posted = page.getByText(/^Posted .* as .* taken back on 1 /);
  await expect(posted).toBeVisible();
  await expect(page.getByRole('button', { name: /^Post (it|what changed)/ })).toHaveCount(0);
  await posted.getByRole('link').last().click();
  await expect(page.getByText(/Taken back: received, not billed/).first()).toBeVisible();
});

test('a company says who may overrule a check', async ({ page }) => {
  await signIn(page, 'Halina Voss');
  await page.goto('/settings/checks');
  const who = page.getByLabel('Who overrules: Rows cost what was ordered');
  await expect(who).toHaveValue('controllers');
  await who.selectOption('clerks');
  await signIn(page, 'Ines Okafor');
  await page.goto('/exceptions');
  await page.getByRole('button', { name: /Rows cost what was ordered/ }).click();
  await page
    .getByRole('row')
    .filter({ has: page.getByTitle(/Row 1 costs .* each/) })
    .first()
    .click();
  await expect(page.getByRole('button', { name: 'Overrule' }).first()).toBeVisible();
  await signIn(page, 'Halina Voss');
  await page.goto('/settings/checks');
  await who.selectOption('controllers');
  await expect(who).toHaveValue('controllers');
});
