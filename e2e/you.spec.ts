import { expect, test } from '@playwright/test';
import { Secret, TOTP } from 'otpauth';

const password = 'glasshouse-demo';

test('a second factor is set up, asked for, and taken off; elsewhere one is signed out', async ({ page, browser }) => {
  const signIn = async (on: typeof page) => {
    await on.goto('/');
    await on.getByLabel('Mail address').fill('rufus@marrowby.example');
    await on.getByLabel('Password').fill(password);
    await on.getByRole('button', { name: 'Sign in' }).click();
  };
  await signIn(page);
  await page.getByRole('link', { name: 'Rufus Pell' }).click();
  await expect(page.getByRole('heading', { name: 'Rufus Pell' })).toBeVisible();
  await page.getByRole('button', { name: 'Set it up' }).click();
  await page.getByLabel('Your password').fill('not this one');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toContainText('not your password');
  await page.getByLabel('Your password').fill(password);
  await page.keyboard.press('Enter');
  const secret = (await page.locator('code').innerText()).replace(/\s/g, '');
  const digits = () => new TOTP({ secret: Secret.fromBase32(secret) }).generate({ timestamp: Date.now() });
  await page.getByLabel('The six digits that it shows').fill(digits());
  await page.keyboard.press('Enter');
  await expect(page.getByText('On: the digits of your authenticator')).toBeVisible();

  const other = await (await browser.newContext()).newPage();
  await signIn(other);
  await expect(other.getByRole('alert')).toContainText('six digits');
  // The code that set it up was taken; the next one is another.
  const used = digits();
  await expect.poll(digits, { timeout: 40_000, intervals: [500] }).not.toBe(used);
  await other.getByLabel('Digits of your authenticator').fill(digits());
  await other.keyboard.press('Enter');
  await expect(other.getByRole('navigation', { name: 'Places' })).toBeVisible();

  await page.reload();
  await page.getByRole('button', { name: 'Sign out everywhere else' }).click();
  await expect(page.getByText('You are signed in here only.')).toBeVisible();
  // The other browser is told at once, and asks for a sign-in.
  await expect(other.getByRole('button', { name: 'Sign in' })).toBeVisible();

  await page.getByRole('button', { name: 'Take it off' }).click();
  await page.getByLabel('Your password').fill(password);
  await page.keyboard.press('Enter');
  await expect(page.getByText('Off: your password alone')).toBeVisible();
});
