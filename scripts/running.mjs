import { Stop } from './system.mjs';

/** Everything ends within this, in milliseconds; what does not end by itself is left to the system. */
const patience = 4500;

/** Runs a program to its end: what it begins is ended in the reverse order by a signal or an error, each with an exit code. */
export async function running(begin) {
  const begun = [];
  let ending = false;
  const end = async (code) => {
    if (ending) return;
    ending = true;
    setTimeout(() => process.exit(code), patience).unref();
    for (const stop of begun.splice(0).reverse()) await stop().catch((error) => console.error(error.message));
    process.exit(code);
  };
  for (const signal of ['SIGINT', 'SIGTERM'])
    process.on(signal, () => {
      if (!ending) console.log('\nEnding …');
      void end(0);
    });
  try {
    await begin(begun);
  } catch (error) {
    if (ending) return;
    const known = error instanceof Stop || error?.constructor?.name === 'Unready';
    // A statement's values are none of a log's business; anything else that goes wrong at the start is whole.
    console.error(
      known
        ? error.message
        : 'params' in Object(error)
          ? `The database refused a statement at the start: ${error.cause?.code ?? 'it says no code'}`
          : error,
    );
    await end(1);
  }
}

/** Large libraries of the server, loaded as they are before TypeScript is: looked through for it they take a second longer. */
const libraries = [
  'drizzle-orm',
  'drizzle-orm/node-postgres',
  'drizzle-orm/node-postgres/migrator',
  'drizzle-orm/pg-core',
  'hono',
  '@sinclair/typebox',
  'pg-boss',
  'smtp-server',
  'mailparser',
  'sharp',
  'date-fns',
  '@cantoo/pdf-lib',
];

/** The server, in TypeScript. */
export async function server() {
  for (const library of libraries) await import(library);
  const { register } = await import('tsx/esm/api');
  register();
  return import('../server/main.ts');
}
