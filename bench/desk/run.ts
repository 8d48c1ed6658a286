import { chromium, type Page } from '@playwright/test';
import { makePdf } from '@ledgerline/documents/maker';
import { makeInvoice } from '@ledgerline/documents/invoice';
import { seeded } from '@ledgerline/documents/random';
import { suppliers } from '@ledgerline/documents/suppliers';
import { serve } from '../../e2e/server.ts';

/**
 * How quick the desk is, in Chromium on this machine: from "Done, next" to the next bill with its page drawn; and a key pressed in a cell
 * of a bill of 500 rows beside one pressed in a plain input on the same page, both to the next frame.
 */
const port = 4398;
const median = (values: number[]): number => [...values].sort((a, b) => a - b)[values.length >> 1]!;

async function signIn(page: Page): Promise<void> {
  await page.goto(`http://127.0.0.1:${port}/`);
  await page.getByRole('button', { name: /Ines Okafor/ }).click();
  await page.getByRole('navigation', { name: 'Places' }).waitFor();
}

/** Milliseconds from the key to the next bill's number and drawn page. */
async function toTheNext(page: Page): Promise<number> {
  // As text: what a bundler adds to functions is not there in the page.
  return page.evaluate<number>(`new Promise((done) => {
    const number = () => document.querySelector('input[aria-label="Invoice number"]')?.value ?? '';
    const path = location.pathname, before = number(), began = performance.now();
    const look = () => {
      const drawn = document.querySelector('[data-testid=page][data-drawn=true]');
      if (location.pathname !== path && number() !== before && drawn) done(performance.now() - began);
      else requestAnimationFrame(look);
    };
    dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', ctrlKey: true, bubbles: true }));
    look();
  })`);
}

/** Milliseconds from each key to the frame that shows it, over many keys typed into an element that has the cursor. */
async function keyPresses(page: Page, keys: number): Promise<number> {
  await page.evaluate(() => {
    const w = globalThis as unknown as { times: number[] };
    w.times = [];
    addEventListener('keydown', () => {
      const began = performance.now();
      requestAnimationFrame(() => setTimeout(() => w.times.push(performance.now() - began)));
    });
  });
  for (let i = 0; i < keys; i++) {
    await page.keyboard.press(String(i % 10));
    await page.waitForTimeout(20);
  }
  return page.evaluate(() => {
    const { times } = globalThis as unknown as { times: number[] };
    return [...times].sort((a, b) => a - b)[times.length >> 1]!;
  });
}

const end = await serve({ port, smtpPort: port + 1 });
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox'] });
try {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, permissions: ['clipboard-read', 'clipboard-write'] });
  const page = await context.newPage();
  await signIn(page);
  await page.goto(`http://127.0.0.1:${port}/arrivals`);
  const index = suppliers.findIndex((s) => s.name.startsWith('Quillhaven'));
  for (let i = 0; i < 14; i++) {
    const invoice = makeInvoice(suppliers[index]!, seeded(i), {
      number: `BENCH-${i}`,
      issueDate: new Date().toISOString().slice(0, 10),
      lines: 3,
    });
    await page
      .getByLabel('Files')
      .setInputFiles({ name: `b${i}.pdf`, mimeType: 'application/pdf', buffer: Buffer.from(await makePdf(invoice)) });
    await page
      .getByRole('link', { name: new RegExp(`BENCH-${i}$`) })
      .first()
      .waitFor();
  }
  await page
    .getByRole('link', { name: /BENCH-0$/ })
    .first()
    .click();
  const times: number[] = [];
  for (let i = 0; i < 12; i++) {
    await page.locator('[data-testid=page][data-drawn=true]').waitFor();
    // A clerk looks at a bill; what is next comes meanwhile.
    await page.waitForTimeout(1500);
    if (
      (await page.getByLabel('Proof').textContent())?.includes('Adds up.') &&
      (await page.getByRole('list', { name: 'Exceptions' }).count()) === 0
    )
      times.push(await toTheNext(page));
    else break;
  }
  times.sort((a, b) => a - b);
  console.log(
    `Done, next to the next bill with its page: ${times.length} bills, median ${median(times).toFixed(0)} ms, slowest ${times.at(-1)!.toFixed(0)} ms`,
  );

  await page.evaluate(() => navigator.clipboard.writeText(Array.from({ length: 500 }, (_, i) => `Row ${i}\t1\t1.00\t1.00`).join('\n')));
  await page.locator('[data-row="0"] [data-field$=".description"]').click();
  await page.keyboard.press('Control+v');
  await page.getByText('500 rows').waitFor();
  await page.locator('[data-row="3"] [data-field$=".quantity"]').click();
  const inCell = await keyPresses(page, 60);
  await page.keyboard.press('Escape');
  await page.evaluate(() => {
    const input = document.createElement('input');
    document.body.append(input);
    input.focus();
  });
  const plain = await keyPresses(page, 60);
  console.log(
    `A key press among 500 rows: ${inCell.toFixed(1)} ms; in a plain input: ${plain.toFixed(1)} ms; ratio ${(inCell / plain).toFixed(2)}`,
  );
} finally {
  await browser.close();
  await end();
}
