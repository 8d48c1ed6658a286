import { readFiles } from './reading/cli.ts';

const usage = `ledgerline read FILE…     print what is read from invoices, one JSON document a file
ledgerline --help         this text`;

const [command, ...rest] = process.argv.slice(2);
if (command === 'read' && rest.length > 0) process.exitCode = await readFiles(rest);
else {
  console.log(usage);
  process.exitCode = command === '--help' || command === 'help' ? 0 : 2;
}
