import type { Static } from '@sinclair/typebox';
import { and, asc, eq, inArray, notInArray, sql } from 'drizzle-orm';
import { Arrange, type Arrangement, type PageImage, type PageSource } from '@ledgerline/contract';
import { dropBill } from '../bills/intake.ts';
import { col } from '../db/column.ts';
import { actorOf, command } from '../commands/command.ts';
import type { Executor } from '../db/client.ts';
import { arrival, bill, document, documentPage, file } from '../db/schema/index.ts';
import { notFound, Refusal } from '../http/problems.ts';
import { fileType } from '../reading/filetype.ts';
import { documentsOf, findArrival } from './store.ts';

const key = (p: PageSource): string => `${p.sha}:${p.page}`;
const whole = (pages: PageSource[]): string => pages.map((p) => `${key(p)}:${p.turn}`).join();
/** Bills that are still in the clerk's hands and may be made anew. */
const open = ['read', 'returned', 'set-aside'];

/** What the pages of files are drawn from. */
export async function imagesOf(db: Executor, shas: string[]): Promise<Map<string, PageImage>> {
  if (shas.length === 0) return new Map();
  const heads = await db
    .select({ sha: file.sha256, head: sql<Buffer>`substring(${col(file.bytes)} from 1 for 1024)` })
    .from(file)
    .where(inArray(file.sha256, [...new Set(shas)]));
  return new Map(heads.map(({ sha, head }) => [sha, fileType(head) === 'picture' ? 'picture' : 'pdf']));
}

/** Which of some documents have a bill that was sent on. */
async function sentOn(db: Executor, ids: string[]): Promise<Set<string | null>> {
  if (ids.length === 0) return new Set();
  const rows = await db
    .select({ id: bill.documentId })
    .from(bill)
    .where(and(inArray(bill.documentId, ids), notInArray(bill.stage, [...open, 'discarded'])));
  return new Set(rows.map((r) => r.id));
}

/** The documents of an arrival that are made of pages, with their pages, and the pages left out. */
export async function arrangementOf(db: Executor, companyId: string, arrivalId: string): Promise<Arrangement> {
  const came = await findArrival(db, companyId, arrivalId);
  if (!came) throw notFound('This arrival');
  const shown = new Map(((await documentsOf(db, [arrivalId])).get(arrivalId) ?? []).map((d) => [d.id, d]));
  const rows = await db
    .select()
    .from(document)
    .where(eq(document.arrivalId, arrivalId))
    .orderBy(asc(document.position), asc(document.part));
  const sent = await sentOn(
    db,
    rows.flatMap((r) => [r.id, ...(r.duplicateOf ? [r.duplicateOf] : [])]),
  );
  const documents = rows
    .filter((r) => r.sources && (r.sources.length > 0 || r.arranged))
    .map((r) => {
      const d = shown.get(r.id);
      return {
        id: r.id,
        name: r.name,
        state: r.state,
        label: d?.billLabel ?? null,
        billId: d?.billId ?? null,
        // The page of an e-invoice is its bill's as well.
        fixed: sent.has(r.id) || (r.duplicateOf !== null && sent.has(r.duplicateOf)),
        pages: r.sources as PageSource[],
      };
    });
  const leftOut = came.leftOut as PageSource[];
  const files = await imagesOf(
    db,
    [...documents.flatMap((d) => d.pages), ...leftOut].map((p) => p.sha),
  );
  return { documents, leftOut, files: Object.fromEntries(files) };
}

/**
 * Shares the pages of an arrival out anew: split, joined, reordered, turned, left out. Every page stays accounted for. Documents that
 * changed lose the bill in the clerk's hands and are read again; bills that were sent on keep their pages.
 */
export const arrange = command(
  {
    body: Arrange,
    may: 'arrivals:add',
    async subject(tx, caller, params) {
      const of = and(eq(arrival.id, params['id']!), eq(arrival.companyId, caller.company.id));
      const [row] = await tx.select({ id: arrival.id }).from(arrival).where(of).for('update');
      if (!row) throw notFound('This arrival');
      return row.id;
    },
  },
  async (tx, caller, wanted, hand): Promise<Arrangement> => {
    const arrivalId = hand.subject;
    const now = await arrangementOf(tx, caller.company.id, arrivalId);
    check(now, wanted);
    const before = new Map(now.documents.map((d) => [d.id, d]));
    const pattern = now.documents[0]!;
    const [model] = await tx.select().from(document).where(eq(document.id, pattern.id));
    for (const [position, asked] of wanted.documents.entries()) {
      const old = asked.id ? before.get(asked.id)! : null;
      if (old && whole(old.pages) === whole(asked.pages)) {
        await tx.update(document).set({ position, part: 0 }).where(eq(document.id, old.id));
        continue;
      }
      const changed = {
        sources: asked.pages,
        arranged: true,
        position,
        part: 0,
        pageCount: asked.pages.length,
        reading: null,
        findings: null,
        duplicateOf: null,
        state: asked.pages.length ? 'waiting' : 'aside',
        note: asked.pages.length ? null : 'All its pages were moved or left out.',
        progress: null,
        tries: 0,
      };
      let id = old?.id;
      if (old) {
        if (!(await dropBill(tx, old.id, 'Its pages were shared out anew in Arrivals.', hand.now, actorOf(caller), true)))
          throw new Refusal(409, `${old.label ?? old.name} has been sent on; its pages stay as they are.`);
        await tx.update(document).set(changed).where(eq(document.id, old.id));
        await tx.delete(documentPage).where(eq(documentPage.documentId, old.id));
      } else {
        const { id: _id, ...rest } = model!;
        const [made] = await tx
          .insert(document)
          .values({ ...rest, ...changed, fileSha256: asked.pages[0]!.sha })
          .returning({ id: document.id });
        id = made!.id;
      }
      if (asked.pages.length) await hand.services.queue.reading(tx, id!);
    }
    await tx.update(arrival).set({ leftOut: wanted.leftOut }).where(eq(arrival.id, arrivalId));
    hand.record({ subject: { type: 'arrival', id: arrivalId }, verb: 'pages shared out' });
    return arrangementOf(tx, caller.company.id, arrivalId);
  },
);

/** Refuses an arrangement that loses, doubles or invents a page, or touches what has been sent on. */
function check(now: Arrangement, wanted: Static<typeof Arrange>): void {
  const there = [...now.documents.flatMap((d) => d.pages), ...now.leftOut].map(key).sort();
  const asked = [...wanted.documents.flatMap((d) => d.pages), ...wanted.leftOut].map(key).sort();
  if (there.join() !== asked.join() || there.length === 0) throw new Refusal(409, 'These pages have changed meanwhile. Open them again.');
  const known = new Map(now.documents.map((d) => [d.id, d]));
  const ids = wanted.documents.flatMap((d) => (d.id ? [d.id] : []));
  if (new Set(ids).size < ids.length || ids.some((id) => !known.has(id)) || now.documents.some((d) => !ids.includes(d.id)))
    throw new Refusal(409, 'These documents have changed meanwhile. Open them again.');
  if (wanted.documents.some((d) => !d.id && d.pages.length === 0)) throw new Refusal(400, 'A new document needs a page.');
  for (const d of now.documents)
    if (d.fixed && whole(d.pages) !== whole(wanted.documents.find((w) => w.id === d.id)!.pages))
      throw new Refusal(409, `${d.label ?? d.name} has been sent on; its pages stay as they are.`);
}
