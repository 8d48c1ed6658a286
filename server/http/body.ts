import type { Context } from 'hono';
import type { Static, TObject } from '@sinclair/typebox';
import { Refusal } from './problems.ts';
import { valid } from './validate.ts';

const megabyte = 1024 * 1024;
/** The most that a request may bring as JSON, and what a stranger may. */
export const bodyLimits = { json: 2 * megabyte, stranger: 16 * 1024 };

const size = (bytes: number): string => (bytes >= megabyte ? `${Math.floor(bytes / megabyte)} MB` : `${Math.floor(bytes / 1024)} KB`);

/** The bytes of a request, counted while they come, whatever it says of itself: one that is too large is left at the limit. */
export async function bytesOf(c: Context, limit: number, tooLarge?: string): Promise<Uint8Array> {
  const refusal = () => new Refusal(413, tooLarge ?? `This is more than ${size(limit)}, which is too much at once.`);
  if (Number(c.req.header('content-length') ?? 0) > limit) throw refusal();
  const body = c.req.raw.body;
  if (!body) return new Uint8Array(0);
  const chunks: Uint8Array[] = [];
  let taken = 0;
  const reader = body.getReader();
  try {
    for (;;) {
      const { value, done } = await reader.read();
      if (done) break;
      taken += value.byteLength;
      if (taken > limit) throw refusal();
      chunks.push(value);
    }
  } catch (error) {
    await reader.cancel().catch(() => undefined);
    if (error instanceof Refusal) throw error;
    throw new Refusal(400, 'The request broke off. Nothing was kept; please try again.');
  }
  return Buffer.concat(chunks);
}

/** The files of a multipart request under a field's name. */
export async function filesOf(c: Context, field: string, limit: number, tooLarge: string): Promise<File[]> {
  const bytes = await bytesOf(c, limit, tooLarge);
  const form = await new Response(new Uint8Array(bytes), { headers: { 'content-type': c.req.header('content-type') ?? '' } })
    .formData()
    .catch(() => {
      throw new Refusal(400, 'The upload was not understood. Nothing was kept; please try again.');
    });
  const files = form.getAll(field).filter((f): f is File => f instanceof File);
  if (files.length === 0) throw new Refusal(400, 'No file was chosen.');
  return files;
}

/** The request's JSON; one whose command asks for nothing may have no body at all. */
export async function jsonOf(c: Context, schema: TObject, limit = bodyLimits.json): Promise<unknown> {
  const bytes = await bytesOf(c, limit);
  if (bytes.length === 0 && Object.keys(schema.properties).length === 0) return {};
  try {
    return JSON.parse(new TextDecoder('utf-8', { fatal: true }).decode(bytes)) as unknown;
  } catch {
    throw new Refusal(400, 'The request was not understood.');
  }
}

/** The request's JSON as a closed schema has it: for a route that asks with a body and changes nothing. */
export const asked = async <B extends TObject>(c: Context, body: B, limit?: number): Promise<Static<B>> =>
  valid(body, await jsonOf(c, body, limit));
