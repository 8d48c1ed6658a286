import { expect, test } from '@playwright/test';
import { billByHand, signIn } from './arrivals.ts';
import { cell } from './grid.ts';

test('a project comes along with its cost centre; what a company lets go together holds at once in another browser', async ({
  page,
  browser,
}) => {
  await signIn(page, 'Ines Okafor');
  await billByHand(page, 'Quillhaven');
  await cell(page, 1, 'description').click();
  await page.keyboard.type('Survey of the roof');
  await cell(page, 1, 'costCentreId').click();
  await page.keyboard.type('700');
  await expect(page.getByRole('option', { name: /^700/ })).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(cell(page, 1, 'dimension1')).toContainText('PALMROOF');
  await expect(cell(page, 1, 'dimension2')).toContainText('HERITAGE');
  // Another cost centre brings none, so they go with the one that brought them; one undo takes all of it back.
  await cell(page, 1, 'costCentreId').click();
  await page.keyboard.type('210');
  await expect(page.getByRole('option', { name: /^210/ })).toBeVisible();
  await page.keyboard.press('Enter');
  await cell(page, 1, 'description').click();
  await expect(cell(page, 1, 'costCentreId')).toContainText('210');
  await expect(cell(page, 1, 'dimension1')).toHaveCount(0);
  await page.keyboard.press('Control+z');
  await expect(cell(page, 1, 'dimension1')).toContainText('PALMROOF');

  const kit = await (await browser.newContext()).newPage();
  await signIn(kit, 'Kit Arden');
  await kit.goto('/settings/combinations');
  await kit.getByRole('button', { name: 'New rule' }).click();
  await kit.getByLabel('Where the', { exact: true }).selectOption({ label: 'Project' });
  await kit.getByLabel('is', { exact: true }).fill('PALM*');
  await kit.getByLabel('the', { exact: true }).selectOption({ label: 'Cost centre' });
  await kit.getByLabel('must be').fill('200-299');
  await kit.getByRole('button', { name: 'Make rule' }).click();
  await expect(kit.getByText('For a range write “200 to 299”.').first()).toBeVisible();
  await kit.getByLabel('must be').fill('200 to 299');
  await expect(kit.getByRole('region', { name: 'What it would do' })).toContainText(/Stops (\d+ rows|one row) in hand/);
  await kit.getByRole('button', { name: 'Make rule' }).click();
  await expect(kit.getByText('the project is PALM*')).toBeVisible();

  await page.getByRole('button', { name: /^\d more$/ }).click();
  await expect(page.getByText('Row 1 has cost centre 700. Where the project is PALM*, the cost centre must be 200 to 299.')).toBeVisible();
  // What does not fit is not offered.
  await cell(page, 1, 'costCentreId').click();
  await page.keyboard.press('F2');
  await expect(page.getByRole('option', { name: /^210/ })).toBeVisible();
  await expect(page.getByRole('option', { name: /^400/ })).toHaveCount(0);
  await page.keyboard.press('Escape');
  // Off again, so that nothing stands in the way of what others try here.
  await kit.getByText('the project is PALM*').click();
  await kit.getByLabel('It holds').uncheck();
  await kit.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('Row 1 has cost centre 700.')).toHaveCount(0);
});

test('an account that needs a project asks for one, and one key goes to it', async ({ page }) => {
  await signIn(page, 'Ines Okafor');
  await billByHand(page, 'Quillhaven');
  await cell(page, 1, 'accountId').click();
  await page.keyboard.type('6830');
  await expect(page.getByRole('option', { name: /6830/ })).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(cell(page, 1, 'dimension1').locator('.wanted')).toBeVisible();
  await cell(page, 1, 'dimension1').click();
  await page.keyboard.type('wetl');
  await expect(page.getByRole('option', { name: /WETLAND/ })).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(cell(page, 1, 'dimension2')).toContainText('LEGACY');
  await cell(page, 1, 'description').click();
  await expect(cell(page, 1, 'dimension1')).toContainText('WETLAND');
  await expect(cell(page, 1, 'dimension1').locator('.wanted')).toHaveCount(0);
});
