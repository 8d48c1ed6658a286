import { expect, test, type Page } from '@playwright/test';
import { billByHand, signIn } from './arrivals.ts';
import { cell } from './grid.ts';

const fill = async (page: Page, name: string, value: string) => {
  await page.locator(`input[aria-label="${name}"]`).fill(value);
  await page.keyboard.press('Tab');
};

test('a phone bill whose tax is not that of its total is parted into what carries tax and what does not, and taken back', async ({
  page,
}) => {
  await signIn(page, 'Ines Okafor');
  await billByHand(page, 'Quillhaven');
  await fill(page, 'Invoice number', 'E2E-TAX-1');
  await page.getByLabel('Amounts in rows').selectOption({ label: 'With tax' });
  await fill(page, 'Net', '95.00');
  await fill(page, 'Tax', '5.00');
  await fill(page, 'Total', '100.00');
  await cell(page, 1, 'description').click();
  await page.keyboard.type('Line and calls');
  await cell(page, 1, 'amount').click();
  await page.keyboard.type('100');
  await page.keyboard.press('Enter');
  const exceptions = page.getByRole('list', { name: 'Exceptions' });
  await expect(exceptions).toContainText('The tax codes make 16.67, the invoice says 5.00');
  await exceptions.getByRole('button', { name: '30.00 S20, 70.00 EX' }).click();
  await expect(cell(page, 2, 'description')).toHaveText('Line and calls');
  await cell(page, 2, 'description').click();
  await expect(cell(page, 1, 'amount')).toHaveText('30.00');
  await expect(cell(page, 1, 'taxCodeId')).toHaveText('S20');
  await expect(cell(page, 2, 'amount')).toHaveText('70.00');
  await expect(cell(page, 2, 'taxCodeId')).toHaveText('EX');
  await expect(exceptions).not.toContainText('The tax codes make');
  await expect(page.getByLabel('Proof')).toContainText('Adds up.');
  await page.keyboard.press('Control+z');
  await expect(cell(page, 1, 'amount')).toHaveText('100.00');
});
