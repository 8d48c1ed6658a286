import { afterEach, describe, expect, it, vi } from 'vitest';
// @ts-expect-error plain JavaScript
import { neededDatabase, settings } from './settings.mjs';
// @ts-expect-error plain JavaScript
import { Stop } from './system.mjs';

const names = ['PORT', 'SMTP_PORT', 'HOST', 'LEDGERLINE_DATA', 'SCAN_FOLDER', 'DATABASE_URL', 'DATABASE_OWNER_URL', 'PUBLIC_URL', 'HOSTS'];
const withEnv = (env: Record<string, string>) => {
  for (const name of names) vi.stubEnv(name, env[name]);
  return settings();
};
afterEach(() => vi.unstubAllEnvs());

describe('settings', () => {
  it('are those of one machine where nothing is set', () => {
    expect(withEnv({})).toMatchObject({
      data: expect.stringMatching(/\.data$/),
      port: undefined,
      smtpPort: undefined,
      host: '127.0.0.1',
      scanFolder: undefined,
      databaseUrl: undefined,
      ownerUrl: undefined,
      publicUrl: undefined,
      hosts: [],
    });
  });
  it('take ports as numbers, folders as whole paths, names without their blanks; what is empty is not set', () => {
    expect(
      withEnv({ PORT: '8080', SMTP_PORT: '0', SCAN_FOLDER: 'in', HOSTS: ' a.example, ,b.example ', DATABASE_URL: '', PUBLIC_URL: '' }),
    ).toMatchObject({
      port: 8080,
      smtpPort: 0,
      scanFolder: expect.stringMatching(/^\/.*\/in$/),
      hosts: ['a.example', 'b.example'],
      databaseUrl: undefined,
      publicUrl: undefined,
    });
  });
  it.each([
    ['PORT', '80a'],
    ['PORT', '-1'],
    ['PORT', '65536'],
    ['SMTP_PORT', '25 '],
    ['PUBLIC_URL', 'bills.example.org'],
    ['PUBLIC_URL', 'ftp://bills.example.org'],
    ['PUBLIC_URL', 'javascript:1'],
  ])('say which one is wrong: %s=%s', (name, value) => {
    expect(() => withEnv({ [name]: value })).toThrow(Stop);
    expect(() => withEnv({ [name]: value })).toThrow(name);
  });
  it('a part on its own needs a database, and says which command needs none', () => {
    expect(() => neededDatabase(withEnv({}))).toThrow(/DATABASE_URL is missing.*npm start/s);
    expect(neededDatabase(withEnv({ DATABASE_URL: 'postgres://x' }))).toBe('postgres://x');
  });
});
