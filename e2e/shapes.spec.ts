import { expect, test } from '@playwright/test';
import nodemailer from 'nodemailer';
import { dec, grouped } from '@ledgerline/core/money';
import { ciiOf, hybridOf, pileOf, ublOf } from '@ledgerline/documents/einvoice';
import { arrival, arrivals, invoiceOf, upload } from './arrivals.ts';
import { portOf } from './parts.ts';

test('a pile becomes bills, and its pages are shared out by hand, undone, and read again', async ({ page }) => {
  await arrivals(page);
  await upload(
    page,
    'e2e-pile.pdf',
    'application/pdf',
    await pileOf([invoiceOf(0, 'E2E-P1'), invoiceOf(1, 'E2E-P2'), invoiceOf(7, 'E2E-P3')]),
  );
  const row = arrival(page, 'e2e-pile.pdf');
  for (const number of ['E2E-P1', 'E2E-P2', 'E2E-P3']) await expect(row.getByRole('link', { name: new RegExp(number) })).toBeVisible();
  await row.getByRole('link', { name: 'Pages' }).click();
  const documents = page.getByRole('region', { name: /^Document/ });
  await expect(documents).toHaveCount(3);

  await page.getByRole('button', { name: 'Join 2' }).click();
  await expect(documents).toHaveCount(2);
  await expect(documents.first()).toContainText('E2E-P1');
  await expect(documents.first().getByRole('group')).toHaveCount(2);
  await page.keyboard.press('Control+z');
  await expect(documents).toHaveCount(3);
  await expect(documents.nth(1)).toContainText('E2E-P2');

  // By keyboard: the third document's page is left out and put back behind the second.
  await documents.nth(2).getByRole('group').focus();
  await page.keyboard.press('Delete');
  await expect(page.getByRole('region', { name: 'Left out' })).toBeVisible();
  await page.getByRole('button', { name: 'Put back' }).click();
  await expect(documents).toHaveCount(2);
  await documents.nth(1).getByRole('group').nth(1).focus();
  await page.keyboard.press('s');
  await expect(documents).toHaveCount(3);
  await expect(documents.nth(2)).toContainText('E2E-P3');

  // By mouse: the third document's page is dragged before the first one's.
  const [from, to] = [
    (await documents.nth(2).getByRole('group').boundingBox())!,
    (await documents.nth(0).getByRole('group').boundingBox())!,
  ];
  await page.mouse.move(from.x + 40, from.y + 40);
  await page.mouse.down();
  await page.mouse.move(to.x + 50, to.y + 50, { steps: 8 });
  await page.mouse.up();
  await expect(documents).toHaveCount(2);
  await expect(documents.first().getByRole('group')).toHaveCount(2);
  await expect(documents.first()).toContainText('E2E-P3');
});

test('an e-invoice is a bill as its data has it, drawn as a page', async ({ page }) => {
  const invoice = invoiceOf(0, 'E2E-X1', 3);
  await arrivals(page);
  await upload(page, 'e2e-x1.xml', 'application/xml', ublOf(invoice));
  await arrival(page, 'e2e-x1.xml')
    .getByRole('link', { name: /E2E-X1/ })
    .click();
  await expect(page.getByRole('img', { name: /drawn from the data/ })).toContainText('E2E-X1');
  await expect(page.locator('[data-mark="gross"]')).toBeVisible();
  await expect(page.getByLabel('Proof')).toContainText('Adds up.');
  await page.keyboard.press('Control+Enter');
  await expect(page.getByText('E2E-X1 went to approval')).toBeVisible();
});

test('a hybrid whose page says another total shows both, and waits until one is chosen', async ({ page }) => {
  const invoice = invoiceOf(2, 'E2E-H1', 2);
  const wrong = { ...invoice, gross: dec(invoice.gross).plus(7).toFixed(2) };
  await arrivals(page);
  const transport = nodemailer.createTransport({ host: '127.0.0.1', port: portOf('mail'), ignoreTLS: true });
  await transport.sendMail({
    from: `accounts@${invoice.supplier.domain}`,
    to: 'invoices@gardens.marrowby.example',
    subject: 'Hybrid E2E-H1',
    text: 'Attached.',
    attachments: [{ filename: 'h1.pdf', content: Buffer.from(await hybridOf(invoice, ciiOf(wrong))) }],
  });
  transport.close();
  await arrival(page, 'Hybrid E2E-H1')
    .getByRole('link', { name: /E2E-H1/ })
    .click();
  const exceptions = page.getByRole('list', { name: 'Exceptions' });
  await expect(exceptions).toContainText(
    `The total is ${grouped(wrong.gross)} in the e-invoice’s data, but ${grouped(invoice.gross)} on its page.`,
  );
  await expect(exceptions).toContainText('BR-CO-15');
  await page.keyboard.press('Control+Enter');
  await expect(page.getByRole('status').or(page.locator('[data-sonner-toast]')).filter({ hasText: 'The total is' }).first()).toBeVisible();
  await page.getByRole('button', { name: `Page: ${grouped(invoice.gross)}` }).click();
  await expect(page.getByLabel('Proof')).toContainText('Adds up.');
  await page.keyboard.press('Control+Enter');
  await expect(page.getByText('E2E-H1 went to approval')).toBeVisible();
});

test('while files are being sent, leaving the page asks first', async ({ page }) => {
  await arrivals(page);
  let send!: () => void;
  const held = new Promise<void>((done) => (send = done));
  await page.route('**/arrivals', async (route) => {
    if (route.request().method() === 'POST') await held;
    await route.continue();
  });
  const asks = () => page.evaluate(() => !window.dispatchEvent(new Event('beforeunload', { cancelable: true })));
  expect(await asks()).toBe(false);
  await upload(page, 'e2e-held.xml', 'application/xml', ublOf(invoiceOf(0, 'E2E-Q1')));
  await expect.poll(asks).toBe(true);
  send();
  await expect(page.getByText('e2e-held.xml added')).toBeVisible();
  expect(await asks()).toBe(false);
});
