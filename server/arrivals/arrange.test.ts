import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Arrange, Arrangement } from '@ledgerline/contract';
import { ciiOf, hybridOf, pileOf, ublOf } from '@ledgerline/documents/einvoice';
import { makePdf } from '@ledgerline/documents/maker';
import { pictureOf } from '@ledgerline/documents/picture';
import { approve, sendOn } from '../bills/moves.ts';
import { looking, takeFiles } from '../testing/arrivals.ts';
import { invoiceOf, makeWorld, type World } from '../testing/world.ts';
import { arrange, arrangementOf } from './arrange.ts';
import { documentsOf } from './store.ts';

let world: World;
beforeAll(async () => {
  world = await makeWorld();
});
afterAll(() => world.close());
const { rows, numbers: bills } = looking(() => world);
const clerk = () => world.as('Ines Okafor');
let made = 0;

/** A pile of invoices in one file, taken in and read. */
async function pile(...indexes: number[]): Promise<{ id: string; numbers: string[] }> {
  const invoices = indexes.map((i) => invoiceOf(i, { number: `AR-${++made}`, lines: 2 }));
  const id = await takeFiles(world, [{ name: 'pile.pdf', mediaType: 'application/pdf', bytes: await pileOf(invoices) }]);
  return { id, numbers: invoices.map((i) => i.number) };
}
const shown = async (id: string): Promise<Arrangement> => arrangementOf(world.database.db, (await clerk()).company.id, id);
const wanted = (now: Arrangement): Arrange => ({
  documents: now.documents.map(({ id, pages }) => ({ id, pages: [...pages] })),
  leftOut: [...now.leftOut],
});
const share = async (id: string, asked: Arrange) => world.run(arrange, await clerk(), { id }, asked);
const apply = async (id: string, change: (a: Arrange) => void) => {
  const asked = wanted(await shown(id));
  change(asked);
  const done = await share(id, asked);
  await world.drain();
  return done;
};
const filled = async (id: string) => (await shown(id)).documents.filter((d) => d.pages.length).map((d) => d.pages.map((p) => p.page));

describe('sharing out the pages of an arrival', () => {
  it('joins two documents and parts them again; the readings follow', async () => {
    const { id, numbers } = await pile(0, 1);
    const before = wanted(await shown(id));
    await apply(id, (a) => {
      a.documents[0]!.pages.push(...a.documents[1]!.pages.splice(0));
    });
    expect([await filled(id), await bills(id)]).toEqual([[[1, 2]], [numbers[0]]]);
    await share(id, before);
    await world.drain();
    expect([await filled(id), await bills(id)]).toEqual([[[1], [2]], numbers]);
  });
  it('begins a new document, in the order asked for', async () => {
    const { id, numbers } = await pile(0, 1, 7);
    await apply(id, (a) => {
      const [first, second, third] = a.documents;
      a.documents = [
        { id: second!.id, pages: second!.pages },
        { id: first!.id, pages: [...first!.pages] },
        { id: third!.id, pages: third!.pages },
      ];
    });
    expect(await bills(id)).toEqual([numbers[1], numbers[0], numbers[2]]);
    await apply(id, (a) => {
      const [page] = a.documents[1]!.pages.splice(0);
      a.documents.push({ id: null, pages: [page!] });
    });
    expect(await filled(id)).toEqual([[2], [3], [1]]);
    expect(await bills(id)).toEqual([numbers[1], numbers[2], numbers[0]]);
  });
  it('leaves the page of an e-invoice as it is once its bill was sent on', async () => {
    const invoice = invoiceOf(0, { number: 'AR-9904', lines: 2 });
    const id = await takeFiles(world, [
      { name: 'd.xml', mediaType: 'application/xml', bytes: ublOf(invoice) },
      { name: 'd.pdf', mediaType: 'application/pdf', bytes: await makePdf(invoice) },
    ]);
    expect((await rows('select name, state from document where arrival_id = $1 order by name', id)).map((d) => [d.name, d.state])).toEqual([
      ['d.pdf', 'duplicate'],
      ['d.xml', 'read'],
    ]);
    const [bill] = await rows(`select id, row_version from bill where invoice_number = 'AR-9904' and stage = 'read'`);
    await world.run(sendOn, await clerk(), { id: bill.id }, { rowVersion: bill.row_version });
    expect((await shown(id)).documents.map((d) => d.fixed)).toEqual([true]);
    await expect(
      apply(id, (a) => {
        const page = a.documents[0]!;
        page.pages = page.pages.map((p) => ({ ...p, turn: 180 as const }));
      }),
    ).rejects.toMatchObject({ status: 409, message: expect.stringContaining('has been sent on') });
    // And it is not read again by hand either, so that what was sent on stays as it is.
    expect((await rows(`select stage from bill where invoice_number = 'AR-9904'`)).map((b) => b.stage)).toEqual(['coded']);
  });
  it('leaves a page out, keeps it, and takes it back', async () => {
    const { id, numbers } = await pile(0, 1);
    await apply(id, (a) => {
      a.leftOut.push(...a.documents[1]!.pages.splice(0));
    });
    expect([await bills(id), (await shown(id)).leftOut.map((p) => p.page)]).toEqual([[numbers[0]], [2]]);
    await apply(id, (a) => {
      a.documents.push({ id: null, pages: a.leftOut.splice(0) });
    });
    expect(await bills(id)).toEqual(numbers);
  });
  it('a page turned on its side is read as it is turned', async () => {
    const { id } = await pile(0, 1);
    await apply(id, (a) => {
      a.documents[0]!.pages[0]!.turn = 90;
    });
    const [page] = await rows(
      'select p.width, p.height from document_page p join document d on d.id = p.document_id where d.arrival_id = $1 order by d.position, d.part limit 1',
      id,
    );
    expect(page.width).toBeGreaterThan(page.height);
    await apply(id, (a) => {
      a.documents[0]!.pages[0]!.turn = 0;
    });
    expect(await bills(id)).toHaveLength(2);
  }, 120_000);
  it('refuses an arrangement that loses, doubles or invents a page', async () => {
    const { id } = await pile(0, 1);
    const stale = 'have changed meanwhile';
    await expect(
      apply(id, (a) => {
        a.documents[1]!.pages.pop();
      }),
    ).rejects.toThrow(stale);
    await expect(
      apply(id, (a) => {
        a.documents[0]!.pages.push(a.documents[1]!.pages[0]!);
      }),
    ).rejects.toThrow(stale);
    await expect(
      apply(id, (a) => {
        a.documents[0]!.pages[0] = { ...a.documents[0]!.pages[0]!, page: 9 };
      }),
    ).rejects.toThrow(stale);
    await expect(
      apply(id, (a) => {
        a.documents.pop();
      }),
    ).rejects.toThrow(stale);
    expect(await filled(id)).toEqual([[1], [2]]);
  });
  it('what has been sent on keeps its pages; the rest may move', async () => {
    const { id, numbers } = await pile(0, 1, 7);
    const [{ id: billId }] = await rows('select id from bill where invoice_number = $1', numbers[0]);
    const me = await clerk(),
      current = await world.show(billId);
    const sent = await world.run(sendOn, me, { id: billId }, { rowVersion: current.rowVersion });
    await world.run(approve, await world.as('Marguerite Sable'), { id: billId }, { rowVersion: sent.rowVersion });
    await expect(
      apply(id, (a) => {
        a.documents[0]!.pages.push(...a.documents[1]!.pages.splice(0));
      }),
    ).rejects.toThrow('has been sent on');
    await apply(id, (a) => {
      a.documents[1]!.pages.push(...a.documents[2]!.pages.splice(0));
    });
    expect([await filled(id), (await bills(id))[0]]).toEqual([[[1], [2, 3]], numbers[0]]);
  });
  it('a reading that was overtaken by a new arrangement is thrown away', async () => {
    const { id, numbers } = await pile(0, 1);
    const asked = wanted(await shown(id));
    asked.documents[0]!.pages.push(...asked.documents[1]!.pages.splice(0));
    const before = wanted(await shown(id));
    await share(id, asked);
    await share(id, before);
    await world.drain();
    expect(await bills(id)).toEqual(numbers);
  });
  it('pages of pictures move like any other', async () => {
    const id = await takeFiles(world, [
      {
        name: 'fax.tif',
        mediaType: 'image/tiff',
        bytes: await pictureOf([invoiceOf(5, { number: 'AR-7101' }), invoiceOf(5, { number: 'AR-7102' })], 'tiff'),
      },
    ]);
    expect((await shown(id)).files).toEqual({ [(await shown(id)).documents[0]!.pages[0]!.sha]: 'picture' });
    const apart = ['AR-7101', 'AR-7102'];
    expect([await filled(id), await bills(id)]).toEqual([[[1], [2]], apart]);
    const kept = () => world.owner.query('SELECT page, turn, created_at FROM scanned_page ORDER BY page');
    const before = (await kept()).rows;
    await apply(id, (a) => {
      a.documents[0]!.pages.push(...a.documents[1]!.pages.splice(0));
    });
    await apply(id, (a) => {
      a.documents.push({ id: null, pages: a.documents[0]!.pages.splice(1) });
    });
    expect([await filled(id), await bills(id)]).toEqual([[[1], [2]], apart]);
    // However they are put together, no page is recognised twice.
    expect((await kept()).rows).toEqual(before);
  }, 90_000);
  it('pages that were all left out can be reached and put back', async () => {
    const { id, numbers } = await pile(0, 1);
    await apply(id, (a) => {
      for (const d of a.documents) a.leftOut.push(...d.pages.splice(0));
    });
    const listed = (await documentsOf(world.database.db, [id])).get(id)!;
    expect([listed.length, listed.every((d) => d.paper), await bills(id)]).toEqual([2, true, []]);
    await apply(id, (a) => {
      a.documents.push(...a.leftOut.splice(0).map((page) => ({ id: null, pages: [page] })));
    });
    expect([await bills(id), (await documentsOf(world.database.db, [id])).get(id)!.length]).toEqual([numbers, 2]);
  });
  it('a hybrid that is turned keeps its data', async () => {
    const invoice = invoiceOf(2, { number: 'AR-H', lines: 2 }),
      data = ciiOf({ ...invoice, dueDate: '2027-01-31' });
    const id = await takeFiles(world, [{ name: 'h.pdf', mediaType: 'application/pdf', bytes: await hybridOf(invoice, data) }]);
    await apply(id, (a) => {
      a.documents[0]!.pages[0]!.turn = 180;
    });
    const [made] = await rows(
      `select b.due_date::text, d.findings from bill b join document d on d.id = b.document_id where d.arrival_id = $1 and b.stage <> 'discarded'`,
      id,
    );
    expect([made.due_date, made.findings.syntax]).toEqual(['2027-01-31', 'CII']);
  });
  it('another company’s arrival is not there', async () => {
    const { id } = await pile(0);
    await expect(world.run(arrange, await world.as('Ines Okafor', 'MNT'), { id }, { documents: [], leftOut: [] })).rejects.toThrow(
      'not here',
    );
  });
});
