import { createHash } from 'node:crypto';
import { eq } from 'drizzle-orm';
import type { Executor } from '../db/client.ts';
import { file } from '../db/schema/index.ts';

export const sha256 = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex');

/** Keeps an original byte for byte and gives its address; the same bytes are kept once. */
export async function keep(db: Executor, bytes: Uint8Array): Promise<string> {
  const address = sha256(bytes);
  await db
    .insert(file)
    .values({ sha256: address, bytes: Buffer.from(bytes), size: bytes.length })
    .onConflictDoNothing();
  return address;
}

export async function fetchFile(db: Executor, address: string): Promise<Buffer | null> {
  const [found] = await db.select({ bytes: file.bytes }).from(file).where(eq(file.sha256, address));
  return found?.bytes ?? null;
}
