// npm run demo:deliver: a few more documents for a running Ledgerline, by mail and into the scan folder.
import { join } from 'node:path';
import { byFolder, byMail, type Doors } from './arrivals.ts';
import { makeInvoice } from '@ledgerline/documents/invoice';
import { seeded } from '@ledgerline/documents/random';
import { suppliers } from '@ledgerline/documents/suppliers';

const doors: Doors = {
  port: Number(process.env['PORT'] ?? 4310),
  smtpPort: Number(process.env['SMTP_PORT'] ?? 4325),
  scanFolder: join(process.env['LEDGERLINE_DATA'] ?? '.data', 'scans'),
};
const now = Date.now();
const random = seeded(now);
const today = new Date(now).toISOString().slice(0, 10);
const some = Array.from({ length: 4 }, () => random.pick(suppliers)).map((s, i) =>
  makeInvoice(s, random, { number: `${s.name.replace(/[^A-Z]/g, '').slice(0, 3)}-${String(now).slice(-6)}${i}`, issueDate: today }),
);
try {
  for (const invoice of some.slice(0, 3)) await byMail(doors, [invoice], 'Please find our invoice attached.');
  await byFolder(doors, some[3]!);
  console.log(`Delivered: ${some.map((i) => `${i.supplier.name} ${i.number}`).join('; ')}`);
} catch (error) {
  console.error(
    `Nothing is listening on smtp://127.0.0.1:${doors.smtpPort}. Is Ledgerline running? (${error instanceof Error ? error.message : String(error)})`,
  );
  process.exitCode = 1;
}
