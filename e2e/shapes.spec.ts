import { expect, test, type Page } from '@playwright/test';
import nodemailer from 'nodemailer';
import { dec } from '@ledgerline/core/money';
import { ciiOf, hybridOf, pileOf, ublOf } from '@ledgerline/demo/documents/einvoice';
import { pictureOf } from '@ledgerline/demo/documents/picture';
import { makeInvoice, type Invoice } from '@ledgerline/demo/invoice';
import { seeded } from '@ledgerline/demo/random';
import { suppliers } from '@ledgerline/demo/suppliers';

const today = new Date().toISOString().slice(0, 10);
const invoiceOf = (index: number, number: string, lines = 2): Invoice =>
  makeInvoice(suppliers[index]!, seeded(index + 3), { number, issueDate: today, lines });

async function arrivals(page: Page): Promise<void> {
  await page.goto('/');
  await page.getByRole('button', { name: /Ines Okafor/ }).click();
  await page.getByRole('link', { name: /^Arrivals/ }).click();
}
const upload = (page: Page, name: string, mimeType: string, bytes: Uint8Array | string) =>
  page.getByLabel('Files').setInputFiles({ name, mimeType, buffer: Buffer.from(bytes) });
const arrival = (page: Page, text: string) => page.locator('li:not([data-sonner-toast])').filter({ hasText: text });

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
  const transport = nodemailer.createTransport({ host: '127.0.0.1', port: 4391, ignoreTLS: true });
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
  await expect(exceptions).toContainText(`The total is ${wrong.gross} in the e-invoice’s data, but ${invoice.gross} on its page.`);
  await expect(exceptions).toContainText('BR-CO-15');
  await page.keyboard.press('Control+Enter');
  await expect(page.getByRole('status').or(page.locator('[data-sonner-toast]')).filter({ hasText: 'The total is' }).first()).toBeVisible();
  await page.getByRole('button', { name: `Page: ${invoice.gross}` }).click();
  await expect(page.getByLabel('Proof')).toContainText('Adds up.');
  await page.keyboard.press('Control+Enter');
  await expect(page.getByText('E2E-H1 went to approval')).toBeVisible();
});

test('a fax is read from its ink, shown as it came and as cleaned, and a drawn box fills the field in hand', async ({ page }) => {
  const sent = [invoiceOf(5, 'E2E-F101'), invoiceOf(5, 'E2E-F102')];
  await arrivals(page);
  await upload(page, 'e2e-fax.tif', 'image/tiff', await pictureOf(sent, 'tiff', { fax: true, skew: 1.2 }));
  const row = arrival(page, 'e2e-fax.tif');
  await row.getByRole('link', { name: /E2E-F102/ }).click({ timeout: 60_000 });
  await expect(page.getByLabel('Invoice number')).toHaveValue('E2E-F102');
  await expect(page.getByLabel('Proof')).toContainText(Number(sent[1]!.gross).toLocaleString('en-GB', { minimumFractionDigits: 2 }));
  await expect(page.getByRole('img', { name: 'Page 1', exact: true })).toHaveJSProperty('complete', true);
  await page.getByRole('button', { name: 'Cleaned' }).click();
  await expect(page.getByRole('img', { name: 'Page 1, cleaned' })).toHaveJSProperty('complete', true);
  const order = page.getByLabel('Order', { exact: true });
  await order.fill('');
  const word = page.locator(`[data-word="${sent[1]!.purchaseOrder}"]`);
  const box = (await word.boundingBox())!;
  await page.mouse.move(box.x - 3, box.y - 1);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width + 3, box.y + box.height + 2, { steps: 4 });
  await page.mouse.up();
  await expect(order).toHaveValue(sent[1]!.purchaseOrder!);
  await expect(page.getByText('Saved')).toBeVisible();
});

test('a scan is turned for looking and looked at closely, and the marks stay on it', async ({ page }) => {
  await arrivals(page);
  await upload(page, 'e2e-look.png', 'image/png', await pictureOf([invoiceOf(5, 'E2E-L1')], 'png', { skew: -1 }));
  await arrival(page, 'e2e-look.png')
    .getByRole('link', { name: /E2E-L1/ })
    .click({ timeout: 60_000 });
  const sheet = page.getByTestId('page'),
    mark = page.locator('[data-mark="gross"]');
  await expect(page.getByRole('img', { name: 'Page 1', exact: true })).toHaveJSProperty('complete', true);
  const tall = (await sheet.boundingBox())!;
  expect(tall.height).toBeGreaterThan(tall.width);
  await page.getByRole('button', { name: 'Turn the page' }).click();
  await expect.poll(async () => ((b) => b.width > b.height)((await sheet.boundingBox())!)).toBe(true);
  for (let i = 0; i < 3; i++) await page.getByRole('button', { name: 'Turn the page' }).click();

  // Close up, the value in hand is about as tall as a thumb, and in view; Alt+Z again leads back.
  await page.getByLabel('Total', { exact: true }).focus();
  const before = (await mark.boundingBox())!;
  await page.keyboard.press('Alt+z');
  await expect.poll(async () => (await mark.boundingBox())!.height).toBeGreaterThan(before.height * 1.5);
  await expect(mark).toBeInViewport();
  await page.keyboard.press('Alt+z');
  await expect.poll(async () => Math.round((await mark.boundingBox())!.height)).toBe(Math.round(before.height));

  // The cleaned page is straight: the mark lies elsewhere on it, but on the same figure.
  await page.keyboard.press('Alt+o');
  await expect(page.getByRole('img', { name: 'Page 1, cleaned' })).toHaveJSProperty('complete', true);
  const middle = ({ x, y, width, height }: { x: number; y: number; width: number; height: number }) => [x + width / 2, y + height / 2];
  const gross = invoiceOf(5, 'E2E-L1').gross;
  const word = page.locator(`[data-word*="${Number(gross).toLocaleString('en-GB', { minimumFractionDigits: 2 })}"]`).last();
  const [a, b] = [middle((await word.boundingBox())!), middle((await mark.boundingBox())!)];
  expect(Math.hypot(a[0]! - b[0]!, a[1]! - b[1]!)).toBeLessThan(12);
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
