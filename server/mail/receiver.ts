import { SMTPServer, type SMTPServerSession } from 'smtp-server';
import { inArray, sql } from 'drizzle-orm';
import { company } from '../db/schema/index.ts';
import { isFull } from '../db/faults.ts';
import { logError } from '../log.ts';
import type { Services } from '../services.ts';
import { keepMessage } from './message.ts';

const megabyte = 1024 * 1024;
export const messageLimit = 110 * megabyte;

const answer = (code: number, sentence: string) => Object.assign(new Error(sentence), { responseCode: code });

/** The companies that some addresses belong to, each once. */
async function companiesAt(services: Services, addresses: string[]): Promise<string[]> {
  if (addresses.length === 0) return [];
  const rows = await services.database.db
    .select({ id: company.id })
    .from(company)
    .where(
      inArray(
        sql`lower(${company.mailAddress})`,
        addresses.map((a) => a.toLowerCase()),
      ),
    );
  return rows.map((r) => r.id);
}

const recipients = (session: SMTPServerSession) => session.envelope.rcptTo.map((r) => r.address);

/**
 * The mailbox: an SMTP receiver for the companies' own addresses. A message is accepted only once it is kept, byte for byte, for each
 * company that it was sent to; what stands in it is no reason to refuse it. If it can't be kept the sender is asked to try again.
 */
export function mailReceiver(services: Services): SMTPServer {
  return new SMTPServer({
    authOptional: true,
    disabledCommands: ['AUTH', 'STARTTLS'],
    size: messageLimit,
    banner: 'Ledgerline',
    logger: false,
    maxClients: 50,
    socketTimeout: 60_000,
    // Whoever is connected and says nothing does not hold back the end.
    closeTimeout: 2000,
    onRcptTo(address, _session, done) {
      companiesAt(services, [address.address]).then(
        (found) => done(found.length === 0 ? answer(550, 'No company has this address') : null),
        (error: unknown) => {
          logError('the mailbox, looking up an address', error);
          done(answer(451, 'Please try again later'));
        },
      );
    },
    onData(stream, session, done) {
      const chunks: Buffer[] = [];
      stream.on('data', (chunk: Buffer) => {
        if (!stream.sizeExceeded) chunks.push(chunk);
      });
      stream.on('end', () => {
        if (stream.sizeExceeded) return done(answer(552, 'This message is larger than 100 MB'));
        const from = session.envelope.mailFrom ? session.envelope.mailFrom.address : null;
        companiesAt(services, recipients(session))
          .then((companies) => keepMessage(services, companies, Buffer.concat(chunks), from))
          .then(
            () => done(),
            (error: unknown) => {
              logError('the mailbox, keeping a message', error);
              done(
                isFull(error)
                  ? answer(452, 'No room for it now; please try again later')
                  : answer(451, 'It could not be kept; please try again later'),
              );
            },
          );
      });
    },
  });
}
