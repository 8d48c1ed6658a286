import { expect, test } from '@playwright/test';
import { signIn } from './arrivals.ts';

test('a supplier is changed by keyboard, and its new bank details wait for a second person', async ({ page }) => {
  await signIn(page, 'Ines Okafor');
  await page.goto('/suppliers');
  await page.getByRole('row').filter({ hasText: 'Hollin & Rook' }).click();
  await page.getByRole('button', { name: 'Change', exact: true }).click();
  const dialog = page.getByRole('dialog');
  const account = dialog.getByRole('combobox', { name: 'Usual account' });
  await account.focus();
  await page.keyboard.type('desig');
  // The list lies over the dialog, where it is seen; Enter takes what is in hand and does not send the form yet.
  await expect(page.getByRole('option', { name: /Design/ })).toBeInViewport();
  await page.keyboard.press('Enter');
  await expect(account).toHaveValue(/Design$/);
  await expect(dialog).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(dialog).toBeHidden();
  await expect(page.getByText(/^\d+ Design$/)).toBeVisible();

  await page.getByRole('button', { name: 'New bank details' }).click();
  await dialog.getByLabel('IBAN').fill('GB12XQZB00123456987655');
  await dialog.getByLabel('Where it comes from').fill('A letter of 20 November');
  await page.keyboard.press('Enter');
  await expect(dialog.getByText('The check digits do not fit.')).toBeVisible();
  await dialog.getByLabel('IBAN').fill('GB12 XQZB 0012 3456 9876 54');
  await page.keyboard.press('Enter');
  const accounts = page.getByRole('region', { name: 'Bank accounts' });
  await expect(accounts).toContainText('waits for a second person');
  await expect(accounts.getByRole('button', { name: 'Verify' })).toHaveCount(0);

  const address = page.url();
  await signIn(page, 'Halina Voss');
  await page.goto(address);
  await accounts.getByRole('button', { name: 'Verify' }).click();
  await dialog.getByLabel('How you made sure').fill('Called the number that we had');
  await page.keyboard.press('Enter');
  await expect(accounts).toContainText('Halina Voss: Called the number that we had');
  await expect(accounts).not.toContainText('waits for a second person');
});
