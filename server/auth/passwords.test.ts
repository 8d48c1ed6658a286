import { verify } from '@node-rs/argon2';
import { expect, it, vi } from 'vitest';
import { fitsHash, hashPassword } from './passwords.ts';

vi.mock('@node-rs/argon2', async (original) => {
  const real = await original<typeof import('@node-rs/argon2')>();
  return { ...real, verify: vi.fn(real.verify) };
});

it('compares where nobody is as it does where somebody is: once, with a hash of the same cost', async () => {
  const own = await hashPassword('forty tall sunflowers');
  const cost = (hash: string) => /^\$argon2id\$v=\d+\$(m=\d+,t=\d+,p=\d+)\$/.exec(hash)?.[1];
  for (const [hash, password, fits] of [
    [own, 'forty tall sunflowers', true],
    [own, 'four tall sunflowers', false],
    [null, 'forty tall sunflowers', false],
    ['no hash at all', 'x', false],
  ] as const) {
    vi.mocked(verify).mockClear();
    expect(await fitsHash(hash, password)).toBe(fits);
    expect(verify).toHaveBeenCalledTimes(1);
    if (hash !== 'no hash at all') expect(cost(String(vi.mocked(verify).mock.calls[0]![0]))).toBe(cost(own));
  }
});
