import { afterAll, beforeAll, expect, it, vi } from 'vitest';
import type { Reading } from '@ledgerline/core/reading';
import { makePdf } from '@ledgerline/documents/maker';
import { takeFiles } from '../testing/arrivals.ts';
import { arrive, invoiceOf, makeWorld, type World } from '../testing/world.ts';

let world: World;
beforeAll(async () => {
  world = await makeWorld();
});
afterAll(() => world.close());

/** A reader that is not sure which of two numbers is the document's. */
function unsureOf(first: string, second: string): void {
  const read = world.services.reader.readQuickly.bind(world.services.reader);
  vi.spyOn(world.services.reader, 'readQuickly').mockImplementationOnce(async (...asked) => {
    const result = await read(...asked);
    if (result.ok !== true) return result;
    const number = (reading: Reading) => ({
      ...reading.header.invoiceNumber!,
      value: first,
      confidence: 0.6,
      rivals: [{ value: second, mark: null, confidence: 0.3 }],
    });
    return {
      ...result,
      parts: result.parts.map((part) => ({
        ...part,
        reading: { ...part.reading, header: { ...part.reading.header, invoiceNumber: number(part.reading) } },
      })),
    };
  });
}

it('of two numbers the one that looks like this supplier’s posted ones is taken, credit notes apart', async () => {
  const supplier = invoiceOf(1, { number: 'X-1' }).supplier.name;
  const posted = (number: string, kind: 'invoice' | 'credit-note' = 'invoice') =>
    world.build.bill({ stage: 'posted', supplier, number, kind, lines: [{ amount: '10.00' }] });
  for (const number of ['QG-4402', 'QG-4413', 'QG-4460']) await posted(number);
  for (const number of ['C10011', 'C10012', 'C10013', 'C10014']) await posted(number, 'credit-note');

  unsureOf('C10023', 'QG-4471');
  const bytes = await makePdf(invoiceOf(1, { number: 'anything', lines: 1 }));
  await takeFiles(world, [{ name: 'scan.pdf', mediaType: 'application/pdf', bytes }], { company: 'MBG' });
  await world.drain();
  const [bill] = await world.rows(`select unsure from bill where invoice_number = 'QG-4471'`);
  // 0.3 × 10 beside 0.6 and 0.1 for neither: 3 / 3.7, which a person still looks at.
  expect(bill.unsure).toContain('invoiceNumber');
});

it('the name that a file was given speaks for a number', async () => {
  unsureOf('88123', 'FILED-77');
  const id = await arrive(world, invoiceOf(3, { number: 'FILED-77', lines: 1 }));
  const [bill] = await world.rows('select invoice_number, unsure from bill where id = $1', id);
  expect(bill.invoice_number).toBe('FILED-77');
});
