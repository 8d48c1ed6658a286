import { simpleParser } from 'mailparser';
import { SMTPServer } from 'smtp-server';
import { company } from '../db/schema/index.ts';
import { takeIn } from '../arrivals/take.ts';
import { fileOf } from '../arrivals/unpack.ts';
import type { Services } from '../services.ts';

const megabyte = 1024 * 1024;
export const messageLimit = 110 * megabyte;

const senderOf = (from: { name: string; address?: string | undefined } | undefined): string | null =>
  from ? [from.name, from.address && from.name ? `<${from.address}>` : from.address].filter(Boolean).join(' ').slice(0, 300) : null;

/** Takes a raw message apart and keeps it: body, headers, attachments and the message itself. */
export async function takeMessage(services: Services, companyId: string, raw: Buffer, envelopeFrom: string | null): Promise<string> {
  const message = await simpleParser(raw, { skipImageLinks: true, skipTextLinks: true, maxHtmlLengthToParse: 2 * megabyte });
  const files = message.attachments.map(fileOf);
  const headers = message.headerLines.map(({ key, line }): [string, string] => [
    key,
    line
      .slice(line.indexOf(':') + 1)
      .trim()
      .slice(0, 2000),
  ]);
  const note = files.some((f) => !f.inline)
    ? null
    : 'This message has no attachment, so there is nothing to read. Its text is kept; open the message to see it.';
  return takeIn(services, {
    companyId,
    channel: 'email',
    sender: senderOf(message.from?.value[0]) ?? envelopeFrom,
    subject: message.subject?.slice(0, 500) ?? null,
    body: message.text?.slice(0, 100_000) ?? null,
    headers,
    original: raw,
    personId: null,
    note,
    files,
  });
}

/**
 * The mailbox: an SMTP receiver for the companies' own addresses. A message is accepted only once it is kept; if that fails the
 * sender is asked to try again, so nothing is lost.
 */
export function mailReceiver(services: Services): SMTPServer {
  const addressed = new Map<string, string>();
  return new SMTPServer({
    authOptional: true,
    disabledCommands: ['AUTH', 'STARTTLS'],
    size: messageLimit,
    banner: 'Ledgerline',
    logger: false,
    maxClients: 50,
    socketTimeout: 60_000,
    onRcptTo(address, session, done) {
      services.database.db
        .select()
        .from(company)
        .then(
          (companies) => {
            const wanted = address.address.toLowerCase();
            const found = companies.find((c) => c.mailAddress.toLowerCase() === wanted);
            if (!found) return done(Object.assign(new Error('No company has this address'), { responseCode: 550 }));
            addressed.set(session.id, found.id);
            done();
          },
          () => done(Object.assign(new Error('Please try again later'), { responseCode: 451 })),
        );
    },
    onData(stream, session, done) {
      const chunks: Buffer[] = [];
      stream.on('data', (chunk: Buffer) => {
        if (!stream.sizeExceeded) chunks.push(chunk);
      });
      stream.on('end', () => {
        if (stream.sizeExceeded) return done(Object.assign(new Error('This message is larger than 100 MB'), { responseCode: 552 }));
        const from = session.envelope.mailFrom ? session.envelope.mailFrom.address : null;
        takeMessage(services, addressed.get(session.id)!, Buffer.concat(chunks), from).then(
          () => done(),
          (error: unknown) => {
            console.error(`A message could not be kept: ${error instanceof Error ? error.message : String(error)}`);
            done(Object.assign(new Error('The message could not be kept; please try again later'), { responseCode: 451 }));
          },
        );
      });
    },
    onClose(session) {
      addressed.delete(session.id);
    },
  });
}
