import { createRequire } from 'node:module';
import { expect, test } from '@playwright/test';
import nodemailer from 'nodemailer';
import { makePdf } from '@ledgerline/documents/maker';
import type { Invoice } from '@ledgerline/documents/invoice';
import { invoiceOf, signIn } from './arrivals.ts';
import { portOf } from './parts.ts';

async function send(invoice: Invoice): Promise<void> {
  const transport = nodemailer.createTransport({ host: '127.0.0.1', port: portOf('mail'), ignoreTLS: true });
  await transport.sendMail({
    from: `accounts@${invoice.supplier.domain}`,
    to: 'invoices@gardens.marrowby.example',
    subject: `Invoice ${invoice.number}`,
    text: 'Attached.',
    attachments: [{ filename: `${invoice.number}.pdf`, content: Buffer.from(await makePdf(invoice)) }],
  });
  transport.close();
}

test('an emailed invoice becomes a posted journal entry and leads back to the page', async ({ page }) => {
  const invoice = invoiceOf(0, 'E2E-100', 3);
  await signIn(page, 'Ines Okafor');
  await page.getByRole('link', { name: /^Arrivals/ }).click();
  await send(invoice);
  const arrived = page.getByRole('listitem').filter({ hasText: 'Invoice E2E-100' });
  await expect(arrived.getByText('read', { exact: true })).toBeVisible();
  await arrived.getByRole('link', { name: /Quillhaven/ }).click();

  await expect(page.getByLabel('Invoice number')).toHaveValue('E2E-100');
  await expect(page.getByLabel('Proof')).toContainText('Adds up.');
  await expect(page.locator('[data-mark="gross"]')).toBeVisible();
  await page.getByRole('textbox', { name: 'Total' }).focus();
  await expect(page.locator('[data-mark="gross"]')).toHaveClass(/border-2/);
  await page.keyboard.press('Control+Enter');
  await expect(page.getByText('E2E-100 went to approval')).toBeVisible();

  await signIn(page, 'Marguerite Sable');
  await page.getByRole('link', { name: /^Bills/ }).click();
  await page.getByRole('searchbox').fill('E2E-100');
  await page.waitForURL(/q=E2E-100/);
  const row = page.getByRole('row').filter({ hasText: 'E2E-100' });
  await expect(row).toContainText('with approver');
  await row.click();
  await page.waitForURL(/\/bills\/[0-9a-f-]{36}/);
  const id = page.url().split('/').pop()!;
  await page.goto(`/approvals?bill=${id}`);
  await expect(page.getByRole('heading', { name: /Quillhaven/ })).toBeVisible();
  // Approving waits until the page has been shown.
  await expect(page.getByRole('button', { name: /^Approve/ })).toBeEnabled();
  await page.keyboard.press('a');
  await expect(page.getByText('E2E-100 approved')).toBeVisible();

  await signIn(page, 'Halina Voss');
  await page.goto('/bills?q=stage:approved%20E2E-100');
  await page.getByRole('checkbox', { name: 'Mark E2E-100' }).check();
  await page.getByRole('button', { name: 'Post 1' }).click();
  await expect(page.getByRole('dialog')).toContainText('Recoverable tax on purchases');
  await page.getByRole('dialog').getByRole('button', { name: 'Post', exact: true }).click();
  await expect(page.getByText('1 bill posted')).toBeVisible();

  await page.getByRole('link', { name: /^Ledger/ }).click();
  await page.getByRole('searchbox').fill('E2E-100');
  await page.getByRole('row').filter({ hasText: 'E2E-100' }).click();
  const first = page.getByRole('row').filter({ hasText: invoice.lines[0]!.text });
  await first.getByRole('button').click();
  const trail = page.getByRole('region', { name: 'Trail' });
  await expect(trail).toContainText('Row 1');
  await expect(page.getByTestId('trail-mark')).toBeVisible();
  await expect(trail).toContainText('approved by Marguerite Sable');
});

test('a bill with a doubt is settled by keyboard alone', async ({ page }) => {
  const invoice = invoiceOf(1, 'E2E-200');
  const wrong = { ...invoice, gross: (Number(invoice.gross) + 10).toFixed(2) };
  await signIn(page, 'Ines Okafor');
  await page.goto('/arrivals');
  await send(wrong);
  await page
    .getByRole('listitem')
    .filter({ hasText: 'Invoice E2E-200' })
    .getByRole('link', { name: /Mossgarth/ })
    .click();
  await expect(page.getByLabel('Proof')).toContainText('Off by 10.00');
  await page.keyboard.press('Control+Enter');
  await expect(page.locator('[data-sonner-toast]').filter({ hasText: 'Off by 10.00' })).toBeVisible();
  for (let i = 0; i < 12 && !(await page.getByRole('textbox', { name: 'Total' }).evaluate((e) => e === document.activeElement)); i++)
    await page.keyboard.press('Alt+ArrowDown');
  await page.keyboard.type(invoice.gross);
  await page.keyboard.press('Enter');
  await expect(page.getByLabel('Proof')).toContainText('Adds up.');
  await expect(page.getByRole('status', { name: 'Saving' })).toHaveText('Saved');
  await page.keyboard.press('Control+Enter');
  await expect(page.getByText('E2E-200 went to approval')).toBeVisible();
});

test('what is typed after Done, next waits for the next Done, next, however late the answer comes', async ({ page }) => {
  const invoice = invoiceOf(1, 'E2E-210');
  await signIn(page, 'Ines Okafor');
  await page.goto('/arrivals');
  await send({ ...invoice, gross: (Number(invoice.gross) + 10).toFixed(2) });
  await page
    .getByRole('listitem')
    .filter({ hasText: 'Invoice E2E-210' })
    .getByRole('link', { name: /Mossgarth/ })
    .click();
  await expect(page.getByLabel('Proof')).toContainText('Off by 10.00');
  let pass = () => {};
  const held = new Promise<void>((done) => {
    pass = done;
  });
  await page.route(/\/bills\/[0-9a-f-]+(\/send)?$/, async (route) => {
    if (route.request().method() !== 'PUT' && route.request().method() !== 'PATCH') await held;
    await route.continue();
  });
  await page.keyboard.press('Control+Enter');
  await page.getByRole('textbox', { name: 'Total' }).fill(invoice.gross);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('status', { name: 'Saving' })).toHaveText('Saved');
  pass();
  await expect(page.locator('[data-sonner-toast]').filter({ hasText: /changed this bill/ })).toBeVisible();
  await expect(page.getByText('E2E-210 went to approval')).toHaveCount(0);
  await expect(page.getByLabel('Invoice number')).toHaveValue('E2E-210');
});

test('a click on a word fills the field in hand', async ({ page }) => {
  await signIn(page, 'Ines Okafor');
  await page.goto('/arrivals');
  await send(invoiceOf(2, 'E2E-300'));
  await page
    .getByRole('listitem')
    .filter({ hasText: 'Invoice E2E-300' })
    .getByRole('link', { name: /Sluicegate/ })
    .click();
  const order = page.getByLabel('Order', { exact: true });
  await order.fill('wrong');
  await order.press('Enter');
  await order.focus();
  await expect(page.getByTestId('page')).toBeVisible();
  // With Alt a click goes through the mark that lies over the word.
  await page.locator('[data-word="E2E-300"]').click({ modifiers: ['Alt'], force: true });
  await expect(order).toHaveValue('E2E-300');
});

test('two people on one bill: both values are shown, one is chosen, the rest of what was typed stays', async ({ browser }) => {
  const one = await browser.newPage();
  await signIn(one, 'Ines Okafor');
  await one.goto('/bills?q=stage:read%20supplier:greenbough');
  await one.getByRole('row').filter({ hasText: 'Greenbough' }).click();
  await one.waitForURL(/\/bills\/[0-9a-f-]{36}/);
  const url = one.url();
  const terms = one.getByLabel('Terms', { exact: true });
  await expect(terms).toBeVisible();
  const other = await browser.newContext();
  const tobias = await other.newPage();
  await signIn(tobias, 'Tobias Fenn');
  await tobias.route('**/api/live', (route) => route.abort());
  await tobias.goto(url);
  const order = tobias.getByLabel('Order', { exact: true });
  await expect(order).toBeVisible();
  await one.getByLabel('Order', { exact: true }).fill('PO-9001');
  await one.keyboard.press('Enter');
  await expect(one.getByRole('status', { name: 'Saving' })).toHaveText('Saved');
  await order.fill('PO-9002');
  await tobias.getByLabel('Terms', { exact: true }).fill('net 45');
  await tobias.keyboard.press('Enter');
  const both = tobias.getByRole('region', { name: 'Changed by two' });
  await expect(both).toContainText('Ines Okafor saved this bill meanwhile');
  await expect(both.getByRole('button', { name: 'Yours: PO-9002' })).toBeVisible();
  await both.getByRole('button', { name: 'Ines Okafor: PO-9001' }).click();
  await expect(tobias.getByRole('status', { name: 'Saving' })).toHaveText('Saved');
  await expect(order).toHaveValue('PO-9001');
  // The first one sees by itself what the second saved.
  await expect(terms).toHaveValue('net 45');
  await expect(one.getByText(/changed by Tobias Fenn/)).toBeVisible();
  await one.close();
  await other.close();
});

test('what the server will not take stays on the desk, and Done does not send another bill than the one on the screen', async ({
  page,
}) => {
  await signIn(page, 'Ines Okafor');
  await page.goto('/arrivals');
  await send(invoiceOf(2, 'E2E-510'));
  await page
    .getByRole('listitem')
    .filter({ hasText: 'Invoice E2E-510' })
    .getByRole('link', { name: / E2E-510$/ })
    .click();
  const order = page.getByLabel('Order', { exact: true }),
    saving = page.getByRole('status', { name: 'Saving' });
  await order.fill('P'.repeat(70));
  await order.press('Enter');
  await expect(saving).toContainText('60 characters at most');
  await page.keyboard.press('Control+Enter');
  await expect(page.locator('[data-sonner-toast]').filter({ hasText: '60 characters at most' })).toBeVisible();
  await expect(order).toHaveValue('P'.repeat(70));
  await order.fill('PO-7100');
  await order.press('Enter');
  await expect(saving).toHaveText('Saved');
  await page.keyboard.press('Control+Enter');
  await expect(page.getByText('E2E-510 went to approval')).toBeVisible();
});

test('what is typed goes with a link that is followed at once, and undo takes it back', async ({ page }) => {
  await signIn(page, 'Ines Okafor');
  await page.goto('/arrivals');
  await send(invoiceOf(2, 'E2E-520'));
  await page
    .getByRole('listitem')
    .filter({ hasText: 'Invoice E2E-520' })
    .getByRole('link', { name: / E2E-520$/ })
    .click();
  await page.waitForURL(/\/bills\/[0-9a-f-]{36}/);
  const url = page.url(),
    order = page.getByLabel('Order', { exact: true });
  const before = await order.inputValue();
  await order.fill('PO-7200');
  await page.getByRole('link', { name: /^Ledger/ }).click();
  await page.waitForURL(/\/ledger$/);
  await page.goBack();
  await expect(order).toHaveValue('PO-7200');
  await page.reload();
  await page.goto(url);
  await expect(order).toHaveValue('PO-7200');
  await order.fill('PO-7300');
  await order.press('Enter');
  await page.keyboard.press('Control+z');
  await expect(order).toHaveValue('PO-7200');
  await page.keyboard.press('Control+y');
  await expect(order).toHaveValue('PO-7300');
  expect(before).not.toBe('PO-7300');
});

test('what is typed while the server does not answer stays, and is saved once it does', async ({ page }) => {
  await signIn(page, 'Ines Okafor');
  await page.goto('/arrivals');
  await send(invoiceOf(2, 'E2E-500'));
  await page
    .getByRole('listitem')
    .filter({ hasText: 'Invoice E2E-500' })
    .getByRole('link', { name: / E2E-500$/ })
    .click();
  const order = page.getByLabel('Order', { exact: true }),
    saving = page.getByRole('status', { name: 'Saving' });
  await page.route('**/api/companies/*/bills/*', (route) => (route.request().method() === 'GET' ? route.continue() : route.abort()));
  await order.fill('PO-7001');
  await order.press('Enter');
  await expect(saving).toContainText('The server does not answer');
  await page.getByLabel('Terms', { exact: true }).fill('net 21');
  await page.getByLabel('Terms', { exact: true }).press('Enter');
  await expect(order).toHaveValue('PO-7001');
  await page.unroute('**/api/companies/*/bills/*');
  await expect(saving).toHaveText('Saved');
  await page.reload();
  await expect(order).toHaveValue('PO-7001');
  await expect(page.getByLabel('Terms', { exact: true })).toHaveValue(/21/);
});

test('a total that is typed over is no longer called proven', async ({ page }) => {
  await signIn(page, 'Ines Okafor');
  await page.goto('/arrivals');
  const invoice = invoiceOf(4, 'E2E-600');
  await send(invoice);
  await page
    .getByRole('listitem')
    .filter({ hasText: 'Invoice E2E-600' })
    .getByRole('link', { name: / E2E-600$/ })
    .click();
  const total = page.locator('[data-field=gross]');
  await expect(total).toContainText('proven');
  await total.getByRole('textbox').fill((Number(invoice.gross) + 1).toFixed(2));
  await total.getByRole('textbox').press('Enter');
  await expect(total).not.toContainText('proven');
  await expect(page.getByRole('status', { name: 'Saving' })).toHaveText('Saved');
  await page.reload();
  await expect(total.getByRole('textbox')).not.toHaveValue('');
  await expect(total).not.toContainText('proven');
});

test('approving takes a key press for each bill: a held key decides nothing more', async ({ page }) => {
  await signIn(page, 'Ines Okafor');
  await page.goto('/arrivals');
  for (const number of ['E2E-710', 'E2E-711']) {
    await send(invoiceOf(1, number));
    await page
      .getByRole('listitem')
      .filter({ hasText: `Invoice ${number}` })
      .getByRole('link', { name: new RegExp(`${number}$`) })
      .click();
    await expect(page.getByLabel('Invoice number')).toHaveValue(number);
    await page.keyboard.press('Control+Enter');
    await expect(page.getByText(`${number} went to approval`)).toBeVisible();
    await page.goto('/arrivals');
  }
  await signIn(page, 'Marguerite Sable');
  await page.goto('/approvals');
  const approve = page.getByRole('button', { name: /^Approve/ }),
    waiting = page.getByText(/\d+ to decide/);
  await expect(approve).toBeEnabled();
  const before = Number.parseInt((await waiting.textContent())!);
  await page.keyboard.down('a');
  await expect(waiting).toContainText(`${before - 1} to decide`);
  await expect(approve).toBeEnabled();
  await page.keyboard.down('a');
  await page.keyboard.up('a');
  // The next key opens the next bill's return: had the held one decided, there would be one bill less.
  await page.keyboard.press('r');
  await expect(page.getByRole('dialog', { name: 'Return to the clerk' })).toBeVisible();
  await expect(waiting).toContainText(`${before - 1} to decide`);
});

test('approvals fit a phone: nothing is cut, the rail lies at the foot', async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await signIn(page, 'Marguerite Sable');
  await page.goto('/approvals');
  await expect(page.getByRole('button', { name: /^Approve/ })).toBeVisible();
  const places = (await page.getByRole('navigation', { name: 'Places' }).boundingBox())!;
  expect([places.width, places.y > 780]).toEqual([390, true]);
  const bill = page.getByRole('region', { name: 'Bill' });
  await expect(bill.getByText('Total', { exact: true })).toBeVisible();
  const cut = await bill
    .locator('td')
    .evaluateAll((cells) =>
      cells.filter((c) => c.getClientRects().length > 0 && c.getBoundingClientRect().right > 390).map((c) => c.textContent),
    );
  expect(cut).toEqual([]);
});

test('no screen has a serious fault for people with a screen reader or poor sight', async ({ page }) => {
  await page.addInitScript({ path: createRequire(import.meta.url).resolve('axe-core/axe.min.js') });
  await signIn(page, 'Ines Okafor');
  for (const [path, sign] of [
    ['/', 'Waiting for you'],
    ['/arrivals', 'Add files'],
    ['/bills', 'to review'],
    ['/ledger', 'Periods'],
    ['/suppliers', 'Tax number'],
    ['/settings/accounts', 'The chart of accounts'],
    ['/settings/people', 'Roles'],
    ['/settings/checks', 'The document'],
    ['/settings/events', 'Before and after'],
    ['/settings/company', 'Mail address for invoices'],
  ] as const) {
    if (path === '/settings/accounts') await signIn(page, 'Kit Arden');
    await page.goto(path);
    await expect(page.getByText(sign).first()).toBeVisible();
    const found = await page.evaluate(async () =>
      (
        await (
          globalThis as unknown as { axe: { run(): Promise<{ violations: { id: string; impact: string; nodes: { html: string }[] }[] }> } }
        ).axe.run()
      ).violations
        .filter((v) => v.impact === 'serious' || v.impact === 'critical')
        .map((v) => `${v.id}: ${v.nodes[0]!.html.slice(0, 140)}`),
    );
    expect(found, path).toEqual([]);
  }
});
