import { simpleParser } from 'mailparser';
import { cleaned } from '../db/text.ts';
import type { ArrivedFile } from './take.ts';
import { fileOf, unpack, unpackLimits } from './unpack.ts';

const megabyte = 1024 * 1024;

/** What a message says and holds. */
export interface OpenedMessage {
  sender: string | null;
  subject: string | null;
  body: string | null;
  headers: [string, string][];
  /** What is wrong with it as a whole, in a clerk's words. */
  note: string | null;
  files: ArrivedFile[];
}
export type OpenAsk = { want: 'message'; raw: Uint8Array } | { want: 'files'; files: ArrivedFile[] };
export type OpenAnswer = { message: OpenedMessage } | { files: ArrivedFile[] } | { fault: 'damaged' };

const senderOf = (from: { name: string; address?: string | undefined } | undefined): string | null =>
  from ? [from.name, from.address && from.name ? `<${from.address}>` : from.address].filter(Boolean).join(' ').slice(0, 300) : null;

/** Takes a raw message apart: body, headers and files, what is packed opened. Whatever is too much stays in the message, which is kept. */
export async function openMessage(raw: Uint8Array): Promise<OpenedMessage> {
  const message = await simpleParser(Buffer.from(raw), {
    skipImageLinks: true,
    skipTextLinks: true,
    maxHtmlLengthToParse: 2 * megabyte,
    maxChildNodes: 10_000,
    maxHeadSize: 4 * megabyte,
  });
  const all = message.attachments.map(fileOf),
    given = all.slice(0, unpackLimits.files);
  const files = await unpack(given);
  const tooMany = all.length - given.length;
  const note =
    tooMany > 0
      ? `This message holds ${all.length} files; the first ${given.length} were taken in. The message itself is kept: open it to see the rest.`
      : all.some((f) => !f.inline)
        ? null
        : 'This message has no attachment, so there is nothing to read. Its text is kept; open the message to see it.';
  return cleaned({
    sender: senderOf(message.from?.value[0]),
    subject: message.subject?.slice(0, 500) ?? null,
    body: message.text?.slice(0, 100_000) ?? null,
    headers: message.headerLines.slice(0, 500).map(({ key, line }): [string, string] => [
      key.slice(0, 200),
      line
        .slice(line.indexOf(':') + 1)
        .trim()
        .slice(0, 2000),
    ]),
    note,
    files,
  });
}

export async function openAsked(ask: OpenAsk): Promise<OpenAnswer> {
  try {
    return ask.want === 'message' ? { message: await openMessage(ask.raw) } : { files: await unpack(ask.files) };
  } catch {
    return { fault: 'damaged' };
  }
}
