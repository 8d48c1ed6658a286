import { expect, type Page } from '@playwright/test';
import { makeInvoice, type Invoice } from '@ledgerline/documents/invoice';
import { seeded } from '@ledgerline/documents/random';
import { suppliers } from '@ledgerline/documents/suppliers';

export const today = new Date().toISOString().slice(0, 10);
/** A made-up invoice of one of the demo's suppliers, of today. */
export const invoiceOf = (index: number, number: string, lines = 2): Invoice =>
  makeInvoice(suppliers[index]!, seeded(index + 3), { number, issueDate: today, lines });

/** Signs one of the demo's people in, whoever was signed in before. */
export async function signIn(page: Page, name: string): Promise<void> {
  await page.context().clearCookies();
  await page.goto('/');
  await page.getByRole('button', { name: new RegExp(name) }).click();
  await expect(page.getByRole('navigation', { name: 'Places' })).toContainText(name.slice(0, 6));
}
/** Signs a clerk in and opens Arrivals. */
export async function arrivals(page: Page, clerk = 'Ines Okafor'): Promise<void> {
  await signIn(page, clerk);
  await page.getByRole('link', { name: /^Arrivals/ }).click();
}
export const upload = (page: Page, name: string, mimeType: string, bytes: Uint8Array | string) =>
  page.locator('input[aria-label=Files]').setInputFiles({ name, mimeType, buffer: Buffer.from(bytes) });
/** The row of what arrived with a text in it. */
export const arrival = (page: Page, text: string) => page.locator('li:not([data-sonner-toast])').filter({ hasText: text });
/** Makes a bill by hand for a supplier, from the list of bills, and opens it. */
export async function billByHand(page: Page, supplier: string): Promise<void> {
  await page.goto('/bills');
  await expect(page.getByRole('row').nth(1)).toBeVisible();
  await page.keyboard.press('n');
  await page.keyboard.type(supplier);
  await expect(page.getByRole('option', { name: new RegExp(supplier) })).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'Make it', exact: true })).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(page.getByText('No document yet')).toBeVisible();
}
