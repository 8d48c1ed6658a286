import { hash, verify } from '@node-rs/argon2';

export const hashPassword = (password: string): Promise<string> => hash(password);

/** What a password is compared with where there is nobody: it takes as long as with somebody. Made once, of nothing anybody knows. */
let nobody: Promise<string> | null = null;

/** Whether a password is the one of a hash. Without a hash it never is, after the same work. */
export async function fitsHash(passwordHash: string | null, password: string): Promise<boolean> {
  const against = passwordHash ?? (await (nobody ??= hash(crypto.randomUUID())));
  const right = await verify(against, password).catch(() => false);
  return right && passwordHash !== null;
}
