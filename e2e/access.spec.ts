import { createRequire } from 'node:module';
import { expect, test, type Page } from '@playwright/test';
import { signIn } from './arrivals.ts';

interface Axe {
  run(): Promise<{ violations: { id: string; impact: string; nodes: { html: string }[] }[] }>;
}
/** What axe finds serious on the screen as it is. */
const faults = (page: Page) =>
  page.evaluate(async () => {
    // What is still fading in is not judged.
    const ending = document.getAnimations().filter((a) => Number.isFinite(Number(a.effect?.getComputedTiming().endTime ?? 0)));
    await Promise.allSettled(ending.map((a) => a.finished));
    return (await (globalThis as unknown as { axe: Axe }).axe.run()).violations
      .filter((v) => v.impact === 'serious' || v.impact === 'critical')
      .map((v) => `${v.id}: ${v.nodes[0]!.html.slice(0, 160)}`);
  });
const dialog = (page: Page) => page.locator('dialog[open]');

for (const theme of ['ledgerday', 'ledgernight'] as const)
  test(`no dialog and no menu of the desk and the list of bills has a serious fault, ${theme}`, async ({ page }) => {
    test.setTimeout(150_000);
    await page.addInitScript({ path: createRequire(import.meta.url).resolve('axe-core/axe.min.js') });
    await page.addInitScript((t) => localStorage.setItem('theme', t), theme);
    await signIn(page, 'Ines Okafor');
    await page.goto('/bills?q=stage:read');
    await expect(page.getByRole('row').nth(1)).toBeVisible();
    // How the list was left is kept for her.
    const preview = page.getByRole('button', { name: 'Preview', exact: true });
    if ((await preview.getAttribute('aria-pressed')) !== 'true') await page.keyboard.press('v');
    await expect(page.getByRole('complementary', { name: 'Preview' })).toContainText('dated');
    expect(await faults(page), 'the list with its preview').toEqual([]);
    const inDialog = async (what: string, open: () => Promise<unknown>) => {
      await open();
      await expect(dialog(page)).toBeVisible();
      expect(await faults(page), what).toEqual([]);
      await page.keyboard.press('Escape');
      await expect(dialog(page)).toHaveCount(0);
    };
    await inDialog('new bill', () => page.keyboard.press('n'));
    await inDialog('columns of the list', () => page.keyboard.press('Alt+c'));
    await inDialog('save view', () => page.getByRole('button', { name: 'Save view …' }).click());
    await page.keyboard.press('v');
    await page.getByRole('row').nth(2).click();
    await expect(page.getByTestId('page')).toBeVisible();
    await page.locator('[data-row="0"] [data-field$=".amount"]').click();
    expect(await faults(page), 'the desk with a cell in hand').toEqual([]);
    for (const [key, what] of [
      ['Alt+c', 'columns of the grid'],
      ['Alt+s', 'set aside'],
      ['Alt+g', 'assign'],
      ['Alt+h', 'whole history'],
      ['Alt+x', 'split'],
      ['F1', 'keys'],
      ['Control+k', 'go to'],
    ] as const)
      await inDialog(what, () => page.keyboard.press(key));
    for (const name of ['More', 'Row 1: what can be done']) {
      await page.getByRole('button', { name, exact: true }).click();
      await expect(page.getByRole('menu')).toBeVisible();
      expect(await faults(page), name).toEqual([]);
      await page.keyboard.press('Escape');
    }
    for (const item of ['Make it repeat …', 'A document beside it …', 'This sitting'])
      await inDialog(item, async () => {
        await page.getByRole('button', { name: 'More', exact: true }).click();
        await page.getByRole('menuitem', { name: item }).click();
      });
    await page.goto('/bills/repeating');
    await expect(page.getByText('Made on their day')).toBeVisible();
    expect(await faults(page), 'repeating bills').toEqual([]);
  });

test('a key pressed right after Esc opens its dialog, and it stays', async ({ page }) => {
  await signIn(page, 'Ines Okafor');
  await page.goto('/bills?q=stage:read');
  await expect(page.getByRole('row').nth(1)).toBeVisible();
  await page.keyboard.press('n');
  await expect(dialog(page)).toHaveAccessibleName('A bill by hand');
  await page.evaluate(async () => {
    const open = document.querySelector('dialog[open]') as HTMLDialogElement & { requestClose(): void };
    // As Esc does it, and the next key before the browser has said that the dialog is closed.
    open.requestClose();
    await Promise.resolve();
    (document.activeElement ?? document.body).dispatchEvent(
      new KeyboardEvent('keydown', { key: 'c', altKey: true, bubbles: true, cancelable: true }),
    );
    await new Promise((done) => setTimeout(done));
  });
  await page.evaluate(() => new Promise((done) => requestAnimationFrame(() => setTimeout(done))));
  await expect(dialog(page)).toHaveCount(1);
  await expect(dialog(page)).toHaveAccessibleName('Columns');
});

for (const [width, height] of [
  [1024, 768],
  [1920, 1080],
  // 1280 wide at 200 %.
  [640, 400],
] as const)
  test(`at ${width} wide nothing that decides is out of reach`, async ({ page }) => {
    await page.setViewportSize({ width, height });
    await signIn(page, 'Ines Okafor');
    await page.goto('/bills?q=stage:read');
    await page.getByRole('row').nth(2).click();
    await expect(page.getByLabel('Proof')).toBeVisible();
    for (const name of ['Set aside', 'Done, next Ctrl ⏎', 'More', 'Back']) {
      const box = (await page.getByRole('button', { name, exact: true }).boundingBox())!;
      expect(box.x >= 0 && box.x + box.width <= width && box.y + box.height <= height, name).toBe(true);
    }
    await page.locator('[data-row="0"] [data-field$=".taxCodeId"]').click();
    const tax = (await page.locator('input[aria-label="Row 1 tax"]').boundingBox())!;
    expect(tax.x + tax.width, 'a cell in hand is in sight').toBeLessThanOrEqual(width);
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(width);
  });
