import { readmit } from './auth/readmit.ts';
import { connect, type Db } from './db/client.ts';
import { roleOf, prepareDatabase } from './db/prepare.ts';
import { saidOf, verifyBooks } from './evidence/verify.ts';
import { readFiles } from './reading/cli.ts';

const usage = `ledgerline read FILE…     print what is read from invoices, one JSON document a file
                          [--companies FILE] [--suppliers FILE]: our own, and those we know, as JSON lists of
                          { name, taxId, iban, email, address }
ledgerline backup FILE    write everything, originals included, into one file
ledgerline restore FILE   put back what a backup holds, in place of what is there
ledgerline prepare        bring the structure of DATABASE_OWNER_URL up to date and give DATABASE_URL's role its rights
ledgerline verify         look through the books: event log, balances, numbers, supplier accounts; ends with 1 where something is off
ledgerline readmit MAIL   let somebody in again who lost a password or second factor: prints a new password
ledgerline --help         this text`;

/** Brings a database of one's own up to date. */
async function prepare(): Promise<void> {
  const { DATABASE_OWNER_URL: owner, DATABASE_URL: application } = process.env;
  if (!owner || !application) throw new Error('DATABASE_OWNER_URL and DATABASE_URL are needed. docs/operators.md says what they are.');
  await prepareDatabase(owner, roleOf(application));
  console.log('The database is up to date.');
}

/** Works on the database as its owner; Ledgerline may run meanwhile. */
async function asOwner(work: (db: Db) => Promise<void>): Promise<void> {
  // @ts-expect-error plain JavaScript
  const { withDatabase } = (await import('../scripts/owner.mjs')) as { withDatabase: WithDatabase };
  await withDatabase(
    async (ownerUrl) => {
      const database = connect(ownerUrl, { most: 1 });
      try {
        await work(database.db);
      } finally {
        await database.close();
      }
    },
    { running: true },
  );
}

/** Lets somebody in again. */
const letIn = (email: string): Promise<void> =>
  asOwner(async (db) => {
    const { name, password } = await readmit(db, email, new Date());
    console.log(`${name} signs in with ${password} and should change it at once (You, at the foot of the rail).`);
  });

/** Says what the books look like; gives 1 where something in them is not as it was written. */
async function verify(): Promise<number> {
  let status = 0;
  await asOwner(async (db) => {
    const { lines, right } = saidOf(await verifyBooks(db));
    console.log(lines.join('\n'));
    if (!right) status = 1;
  });
  return status;
}
type WithDatabase = (work: (ownerUrl: string) => Promise<void>, how: { running: boolean }) => Promise<void>;

interface Copies {
  backup(file: string): Promise<void>;
  restore(file: string): Promise<void>;
}
// @ts-expect-error plain JavaScript
const copies = (): Promise<Copies> => import('../scripts/backup.mjs');

async function run([command, ...rest]: string[]): Promise<number> {
  const [file] = rest;
  if (command === 'read' && rest.length > 0) return readFiles(rest);
  if (command === 'backup' && file && rest.length === 1) await (await copies()).backup(file);
  else if (command === 'restore' && file && rest.length === 1) await (await copies()).restore(file);
  else if (command === 'readmit' && file && rest.length === 1) await letIn(file);
  else if (command === 'verify' && rest.length === 0) return verify();
  else if (command === 'prepare' && rest.length === 0) await prepare();
  else {
    console.log(usage);
    return command === '--help' || command === 'help' ? 0 : 2;
  }
  return 0;
}

try {
  process.exitCode = await run(process.argv.slice(2));
} catch (error) {
  console.error(error instanceof Error ? error.message : error);
  process.exitCode = 1;
}
