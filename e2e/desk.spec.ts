import { expect, test, type Page } from '@playwright/test';
import { makePdf } from '@ledgerline/documents/maker';
import { suppliers } from '@ledgerline/documents/suppliers';
import { arrival, arrivals, invoiceOf, signIn, upload } from './arrivals.ts';
import { cell } from './grid.ts';

/** Presses keys and counts them. */
function keyboard(page: Page) {
  let pressed = 0;
  return {
    pressed: () => pressed,
    async press(...keys: string[]) {
      for (const key of keys) await page.keyboard.press(key);
      pressed += keys.length;
    },
    async type(text: string) {
      await page.keyboard.type(text);
      pressed += text.length;
    },
  };
}
async function opened(page: Page, of: string, number: string, lines = 2, off = 0, clerk = 'Ines Okafor'): Promise<void> {
  const invoice = invoiceOf(
    suppliers.findIndex((s) => s.name.startsWith(of)),
    number,
    lines,
  );
  const printed = { ...invoice, gross: (Number(invoice.gross) + off).toFixed(2) };
  await arrivals(page, clerk);
  await upload(page, `${number}.pdf`, 'application/pdf', await makePdf(printed));
  await arrival(page, number)
    .getByRole('link', { name: new RegExp(of) })
    .click();
  await expect(page.getByTestId('page').locator('canvas')).toBeVisible();
}
const field = (page: Page, name: string) => page.locator(`input[aria-label="${name}"]`);

test('a clean bill takes one key, and the next one is there with its page', async ({ page }) => {
  await opened(page, 'Quillhaven', 'E2E-D1');
  await expect(page.getByLabel('Proof')).toContainText('Adds up.');
  const keys = keyboard(page);
  await keys.press('Control+Enter');
  await expect(page.getByText('E2E-D1 went to approval')).toBeVisible();
  await expect(field(page, 'Invoice number')).not.toHaveValue('E2E-D1');
  await expect(page.getByTestId('page').locator('canvas, img, svg').first()).toBeVisible();
  expect(keys.pressed()).toBeLessThanOrEqual(2);
});

test('a wrong total takes six keys at most, the next bill included', async ({ page }) => {
  await opened(page, 'Mossgarth', 'E2E-D4', 2, 10);
  await expect(page.getByLabel('Proof')).toContainText('Off by 10.00');
  const keys = keyboard(page);
  await keys.press('Alt+r');
  await expect(page.getByLabel('Proof')).toContainText('Adds up.');
  await expect(page.getByRole('status', { name: 'Saving' })).toHaveText('Saved');
  await keys.press('Control+Enter');
  await expect(page.getByText('E2E-D4 went to approval')).toBeVisible();
  expect(keys.pressed()).toBeLessThanOrEqual(6);
});

test('a few letters lead to a bill, an account’s entries and an action, from wherever one is', async ({ page }) => {
  await opened(page, 'Quillhaven', 'E2E-D5');
  await page.goto('/');
  await expect(page.getByText('Waiting for you')).toBeVisible();
  const go = page.getByRole('dialog', { name: 'Go to' });
  const jump = async (letters: string, option: RegExp) => {
    await page.keyboard.press('Control+k');
    await page.keyboard.type(letters);
    await expect(go.getByRole('option', { name: option, selected: true })).toBeVisible();
  };
  await jump('e2e-d5', /Bill E2E-D5/);
  await page.keyboard.press('Enter');
  await expect(field(page, 'Invoice number')).toHaveValue('E2E-D5');
  await jump('set as', /Action Set aside/);
  await page.keyboard.press('Enter');
  const aside = page.getByRole('dialog', { name: 'Set this bill aside' });
  await expect(aside).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(aside).toBeHidden();
  await jump('supp', /Place Suppliers/);
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/\/suppliers$/);
  await signIn(page, 'Halina Voss');
  await jump('6150', /Account 6150/);
  await go.getByRole('option', { name: /Account 6150/ }).click();
  await expect(page.getByText(/on account 6150 /)).toBeVisible();
});

test('a first bill of a new supplier: one key makes it, and twenty rows are coded alike by eight more at most', async ({ page }) => {
  await opened(page, 'Ribbon & Reed', 'E2E-D2', 20);
  const said = page.getByRole('list', { name: 'Exceptions' });
  await expect(said).toContainText('All 20 rows need an account.');
  expect(await said.getByRole('listitem').count(), 'sentences at once').toBeLessThanOrEqual(4);
  const keys = keyboard(page);
  await keys.press('Alt+m');
  await expect(page.getByText('is a supplier now')).toBeVisible();
  await expect(said).not.toContainText('is not among the suppliers');
  const before = keys.pressed();
  await keys.press('Alt+a');
  await keys.type('6010');
  await expect(page.getByRole('option', { name: /6010/ })).toBeVisible();
  await keys.press('Enter');
  for (const row of [2, 20]) await expect(cell(page, row, 'accountId')).toHaveText(/^6010/);
  await expect(said).not.toContainText('need an account');
  expect(keys.pressed() - before).toBeLessThanOrEqual(8);
  // One undo takes it back from all.
  await page.keyboard.press('Control+z');
  await expect(said).toContainText('All 20 rows need an account.');
});

test('the ink that a value was read from stands at its field and above its row; how one looks at the page is kept', async ({ page }) => {
  await opened(page, 'Quillhaven', 'E2E-D3', 3);
  const ink = page.getByTestId('ink');
  const box = async (of: ReturnType<Page['locator']>) => (await of.boundingBox())!;
  await field(page, 'Total').focus();
  await expect(ink).toBeVisible();
  const total = await box(field(page, 'Total'));
  expect((await box(ink)).y - (total.y + total.height), 'right below its field').toBeLessThan(8);
  await cell(page, 2, 'unitPrice').click();
  await expect(field(page, 'Row 2 price')).toBeFocused();
  await expect(async () => {
    const [row, above] = [await box(field(page, 'Row 2 price')), await box(ink)];
    expect(row.y - (above.y + above.height)).toBeGreaterThanOrEqual(0);
    expect(row.y - (above.y + above.height), 'right above its row').toBeLessThan(10);
  }).toPass();
  // The page itself fills about half of the window, and its ink fills the page's pane.
  const pane = await box(page.getByRole('region', { name: 'Page' }));
  expect(pane.width / 1280).toBeGreaterThan(0.42);
  const words = await page
    .locator('[data-word]')
    .evaluateAll((all) => all.map((w) => w.getBoundingClientRect()).map((r) => [r.left, r.right]));
  const inked = Math.max(...words.map((w) => w[1]!)) - Math.min(...words.map((w) => w[0]!));
  expect(inked / pane.width).toBeGreaterThan(0.85);

  // Nothing was read for a cost centre by itself; what a person adds has no ink.
  await page.keyboard.press('Alt+n');
  await page.keyboard.type('Carriage');
  await expect(ink).toBeHidden();

  await page.getByRole('button', { name: 'Move the page: left, right, above' }).click();
  await page.reload();
  await expect(page.getByTestId('page').locator('canvas')).toBeVisible();
  expect((await box(page.getByRole('region', { name: 'Page' }))).x).toBeGreaterThan(
    (await box(page.getByRole('region', { name: 'Bill', exact: true }))).x,
  );
  await page.getByRole('button', { name: 'Move the page: left, right, above' }).click();
  await page.getByRole('button', { name: 'Move the page: left, right, above' }).click();
});

test('the page stands in a window of its own, lit up in step with the desk, in both directions', async ({ page }) => {
  await opened(page, 'Quillhaven', 'E2E-D6');
  const comes = page.context().waitForEvent('page');
  await page.getByRole('button', { name: 'Page in a window of its own' }).click();
  const second = await comes;
  await expect(second.getByTestId('page').locator('canvas')).toBeVisible();
  await expect(page.getByRole('region', { name: 'Page' })).toHaveCount(0);
  await field(page, 'Net').focus();
  await expect(second.locator('[data-mark="net"]')).toHaveClass(/border-2/);
  await second.getByLabel('Mark: Total').click();
  await expect(field(page, 'Total')).toBeFocused();
  // A box drawn there goes into the field in hand here.
  await field(page, 'Order').focus();
  const number = (await second.locator('[data-word="E2E-D6"]').first().boundingBox())!;
  await second.mouse.move(number.x - 3, number.y - 3);
  await second.mouse.down();
  await second.mouse.move(number.x + number.width + 3, number.y + number.height + 3, { steps: 4 });
  await second.mouse.up();
  await expect(field(page, 'Order')).toHaveValue('E2E-D6');
  // What is being typed outlives the other window.
  await field(page, 'Order').fill('PO-77');
  await second.close();
  await expect(page.getByRole('region', { name: 'Page' })).toBeVisible();
  await expect(field(page, 'Order')).toHaveValue('PO-77');
});

test('columns of the grid are left out and sized, and stay so', async ({ page }) => {
  // Somebody else: how a person looks at the desk is kept for whatever they do next.
  await opened(page, 'Quillhaven', 'E2E-D7', 2, 0, 'Tobias Fenn');
  const heads = page.getByRole('columnheader');
  await expect(heads.filter({ hasText: 'Qty' })).toBeVisible();
  await page.keyboard.press('Alt+c');
  await page.getByRole('combobox', { name: 'Quantity' }).selectOption('Never');
  await page.keyboard.press('Escape');
  await expect(heads.filter({ hasText: 'Qty' })).toHaveCount(0);
  const amount = (await heads.filter({ hasText: 'Amount' }).boundingBox())!;
  await page.mouse.move(amount.x + amount.width - 2, amount.y + 10);
  await page.mouse.down();
  await page.mouse.move(amount.x + amount.width + 28, amount.y + 10, { steps: 4 });
  await page.mouse.up();
  // From another place and back, and after loading the page anew.
  await page.getByRole('link', { name: /^Today/ }).click();
  await expect(page.getByText('Waiting for you')).toBeVisible();
  await page.goBack();
  await expect(heads.filter({ hasText: 'Amount' })).toBeVisible();
  await expect(heads.filter({ hasText: 'Qty' })).toHaveCount(0);
  await page.reload();
  await expect(heads.filter({ hasText: 'Amount' })).toBeVisible();
  await expect(heads.filter({ hasText: 'Qty' })).toHaveCount(0);
  expect(Math.abs((await heads.filter({ hasText: 'Amount' }).boundingBox())!.width - amount.width - 30)).toBeLessThan(4);
});

test('rows work as in a spreadsheet: typed over, filled, copied, pasted, parted, joined, and all of it undone', async ({
  page,
  context,
}) => {
  await context.grantPermissions(['clipboard-read', 'clipboard-write']);
  await opened(page, 'Quillhaven', 'E2E-D8', 3);
  const held = (row: number, name: string) => page.locator(`:is(input, textarea)[aria-label="Row ${row} ${name}"]`);
  await cell(page, 1, 'quantity').click();
  await expect(held(1, 'qty')).toBeFocused();
  const before = await page.locator('[data-grid] tbody [role=gridcell]').allTextContents();
  // Typing replaces; Enter goes down; Esc leaves as it was.
  await page.keyboard.type('3*4');
  await page.keyboard.press('Enter');
  await expect(cell(page, 1, 'quantity')).toHaveText('12');
  await expect(held(2, 'qty')).toBeFocused();
  await page.keyboard.type('99');
  await page.keyboard.press('Escape');
  await page.keyboard.press('ArrowUp');
  await expect(held(1, 'qty')).toHaveValue('12');
  await expect(cell(page, 2, 'quantity')).not.toHaveText('99');
  // A word that is no figure is refused where it stands, and nothing is lost.
  await page.keyboard.type('lots');
  await page.keyboard.press('Enter');
  await expect(page.getByText('“lots” is not a number')).toBeVisible();
  await expect(held(1, 'qty')).toHaveValue('lots');
  await page.keyboard.press('Escape');
  // Down over three rows.
  await page.keyboard.press('Shift+Control+ArrowDown');
  await expect(page.getByText('3 cells selected')).toBeVisible();
  await page.keyboard.press('Control+d');
  for (const row of [1, 2]) await expect(cell(page, row, 'quantity')).toHaveText('12');
  // A copied block comes as a spreadsheet would take it, and goes in again further down, rows added.
  await page.keyboard.press('Control+c');
  expect(await page.evaluate(() => navigator.clipboard.readText())).toBe('12\n12\n12');
  await page.evaluate(() => navigator.clipboard.writeText('"Moss\nand bark"\t5\nStakes\t"1,000"\n'));
  await cell(page, 3, 'description').click();
  await page.keyboard.press('Control+v');
  await expect(page.locator('[data-row="3"]')).toBeVisible();
  await expect(cell(page, 4, 'description')).toHaveText('Stakes');
  await expect(held(3, 'description')).toHaveValue('Moss\nand bark');
  await expect(cell(page, 4, 'quantity')).toHaveText('1000');
  // What cannot be taken is told by row and column, and leads there.
  await page.evaluate(() => navigator.clipboard.writeText('9999\n6010'));
  await cell(page, 1, 'accountId').click();
  await page.keyboard.press('Control+v');
  await page.getByRole('button', { name: 'Row 1, account: “9999” is not on the list.' }).click();
  await expect(held(1, 'account')).toBeFocused();
  await expect(cell(page, 2, 'accountId')).toHaveText(/^6010/);
  // One row parted in two by percent, and joined again; text alone has no amount.
  await cell(page, 1, 'amount').click();
  const whole = await held(1, 'amount').inputValue();
  await page.keyboard.press('Alt+x');
  const dialog = page.getByRole('dialog', { name: 'Split row 1' });
  await dialog.getByLabel('Part 1').fill('25');
  await page.keyboard.press('Enter');
  await expect(page.locator('[data-row="4"]')).toBeVisible();
  await page.keyboard.press('Alt+j');
  await expect(page.locator('[data-row="4"]')).toHaveCount(0);
  await expect(held(1, 'amount')).toHaveValue(whole);
  for (let turn = 0; turn < 4; turn++) await page.keyboard.press('Alt+k');
  await expect(page.locator('[data-row="0"] th')).toHaveText('¶1');
  // Everything goes back, step by step.
  await expect(async () => {
    await page.keyboard.press('Control+z');
    expect(await page.locator('[data-grid] tbody [role=gridcell]').count()).toBe(before.length);
    await cell(page, 2, 'quantity').click();
    await cell(page, 1, 'quantity').click();
    expect(await page.locator('[data-grid] tbody [role=gridcell]').allTextContents()).toEqual(before);
  }).toPass();
});
