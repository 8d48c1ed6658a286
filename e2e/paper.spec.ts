import { expect, test } from '@playwright/test';
import { ublOf } from '@ledgerline/documents/einvoice';
import { pictureOf } from '@ledgerline/documents/picture';
import { arrival, arrivals, invoiceOf, upload } from './arrivals.ts';

test('a fax is read from its ink, shown as it came and as cleaned, and a drawn box fills the field in hand', async ({ page }) => {
  const sent = [invoiceOf(5, 'E2E-F101'), invoiceOf(5, 'E2E-F102')];
  await arrivals(page);
  await upload(page, 'e2e-fax.tif', 'image/tiff', await pictureOf(sent, 'fax', { fax: true, skew: 1.2 }));
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

test('while pages are read the row tells how far it is and what is done, and others are not held up', async ({ page }) => {
  await arrivals(page);
  const sent = [0, 1, 2].map((i) => invoiceOf(5, `E2E-S20${i}`));
  await upload(page, 'e2e-long.tif', 'image/tiff', await pictureOf(sent, 'fax', { fax: true }));
  const row = arrival(page, 'e2e-long.tif');
  await expect(row).toContainText(/[0-3] of 3 pages · (opening|straightening|recognising)/, { timeout: 30_000 });
  await expect(row.getByRole('progressbar', { name: /of 3 pages read/ })).toBeVisible();
  // A document without ink that comes later is read before the pages are.
  await upload(page, 'e2e-quick.xml', 'application/xml', ublOf(invoiceOf(1, 'E2E-S300')));
  await expect(arrival(page, 'e2e-quick.xml').getByRole('link', { name: /E2E-S300/ })).toBeVisible();
  for (const { number } of sent) await expect(row.getByRole('link', { name: new RegExp(number) })).toBeVisible({ timeout: 60_000 });
  await expect(row.getByRole('progressbar')).toHaveCount(0);
});

test('a picture that cannot be opened stands alone with its reason and can be tried again', async ({ page }) => {
  await arrivals(page);
  const whole = await pictureOf([invoiceOf(5, 'E2E-S400')], 'png');
  await upload(page, 'e2e-torn.png', 'image/png', whole.slice(0, 4000));
  const row = arrival(page, 'e2e-torn.png');
  await expect(row).toContainText('not read');
  await expect(row).toContainText(/picture cannot be opened/i);
  const again = page.waitForResponse((r) => r.request().method() === 'POST' && /documents\/[^/]+\/(retry|again)/.test(r.url()));
  await row.getByRole('button', { name: 'Try again' }).click();
  expect((await again).ok()).toBe(true);
  await expect(row).toContainText('not read');
});
