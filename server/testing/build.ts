import type { FurtherCell } from '@ledgerline/core/reading';
import { eq } from 'drizzle-orm';
import { dec, sum } from '@ledgerline/core/money';
import { arrival, bill, billLine, document, documentPage } from '../db/schema/index.ts';
import { transaction } from '../events/record.ts';
import { keep } from '../files/store.ts';
import { keepLook } from '../bills/looks.ts';
import { findBill } from '../bills/store.ts';
import { recheck } from '../bills/checking.ts';
import { postBills } from '../ledger/posting.ts';
import type { World } from './world.ts';

/** One line of a bill that a test wants; what it does not say is coded to growing media in the arboretum at 20%. */
export interface LineWish {
  amount?: string | null;
  description?: string;
  kind?: 'line' | 'charge';
  quantity?: string;
  unitPrice?: string;
  unit?: string;
  item?: string;
  account?: string | null;
  centre?: string | null;
  code?: string | null;
  further?: FurtherCell[];
}
export interface BillWish {
  stage?: 'read' | 'coded' | 'approved' | 'posted';
  company?: string;
  supplier?: string | null;
  number?: string;
  kind?: 'invoice' | 'credit-note';
  currency?: string;
  issueDate?: string;
  dueDate?: string | null;
  order?: string;
  lines?: LineWish[];
  /** Left out: 20% of the lines. */ tax?: string;
  gross?: string;
  iban?: string;
  taxId?: string;
  documentId?: string;
  unsure?: string[];
  createdAt?: Date;
  sentBy?: string;
  approvedBy?: string;
  entryDate?: string;
}

/** Builders that write straight into the database of a test world: exact figures, no mail, no reading. */
export function builders(world: World) {
  let made = 0;
  const build = {
    /** A document with its file and pages, without a bill. Gives its id. */
    async document(wish: { company?: string; words?: string[]; name?: string } = {}): Promise<string> {
      const companyId = world.master.company(wish.company ?? 'MBG').id,
        name = wish.name ?? `document-${++made}.pdf`;
      return transaction(world.database.db, async (tx) => {
        const sha = await keep(tx, new TextEncoder().encode(`${name} of ${companyId}`));
        const [came] = await tx.insert(arrival).values({ companyId, channel: 'upload', subject: name }).returning();
        const [row] = await tx
          .insert(document)
          .values({
            companyId,
            arrivalId: came!.id,
            name,
            mediaType: 'application/pdf',
            fileSha256: sha,
            size: 10,
            state: 'read',
            pageCount: 1,
            sources: [{ sha, page: 1, turn: 0 }],
          })
          .returning();
        const words = (wish.words ?? ['Total', '120.00']).map((text, i) => ({
          text,
          x: 50,
          y: 50 + 20 * i,
          w: 60,
          h: 10,
          size: 10,
          font: 'regular',
        }));
        await tx.insert(documentPage).values({ documentId: row!.id, number: 1, width: 595, height: 842, words });
        await keepLook(tx, row!.id, [{ number: 1, width: 595, height: 842, words }]);
        return row!.id;
      });
    },
    /** A bill at a stage, as it would be had it come there. Gives its id. */
    async bill(wish: BillWish = {}): Promise<string> {
      const code = wish.company ?? 'MBG',
        own = world.master.company(code),
        wished = wish.lines ?? [{ amount: '100.00' }],
        net = sum(wished.map((l) => dec(l.amount ?? '0'))),
        tax = wish.tax ?? net.times('0.2').toFixed(2),
        stage = wish.stage ?? 'read';
      const supplierId = wish.supplier === null ? null : world.master.supplier(wish.supplier ?? world.someSupplier(code)!);
      const clerk = world.master.person(wish.sentBy ?? 'Ines Okafor'),
        approver = world.master.person(wish.approvedBy ?? (code === 'MNT' ? 'Rufus Pell' : 'Marguerite Sable'));
      const now = world.services.now();
      const id = await transaction(world.database.db, async (tx) => {
        const [row] = await tx
          .insert(bill)
          .values({
            companyId: own.id,
            documentId: wish.documentId ?? null,
            stage: 'read',
            kind: wish.kind ?? 'invoice',
            supplierId,
            supplierName: wish.supplier === null ? 'Nobody Known' : null,
            supplierIban: wish.iban ?? null,
            supplierTaxId: wish.taxId ?? null,
            invoiceNumber: wish.number ?? `N-${++made}`,
            issueDate: wish.issueDate ?? '2026-11-02',
            dueDate: wish.dueDate === undefined ? '2026-12-02' : wish.dueDate,
            purchaseOrder: wish.order ?? null,
            currency: wish.currency ?? own.baseCurrency,
            net: net.toFixed(2),
            tax,
            gross: wish.gross ?? net.plus(tax).toFixed(2),
            unsure: wish.unsure ?? [],
            createdAt: wish.createdAt ?? now,
          })
          .returning();
        for (const [position, l] of wished.entries())
          await tx.insert(billLine).values({
            companyId: own.id,
            billId: row!.id,
            position,
            kind: l.kind ?? 'line',
            description: l.description ?? `Line ${position + 1}`,
            quantity: l.quantity ?? null,
            unitPrice: l.unitPrice ?? null,
            unit: l.unit ?? null,
            code: l.item ?? null,
            amount: l.amount === undefined ? '100.00' : l.amount,
            further: l.further ?? [],
            accountId: l.account === null ? null : own.account(l.account ?? '6000'),
            costCentreId: l.centre === null ? null : own.centre(l.centre ?? '200'),
            taxCodeId: l.code === null ? null : own.taxCode(l.code ?? 'S20').id,
          });
        if (stage === 'read') await recheck(tx, own, (await findBill(tx, own.id, row!.id))!, { personId: null, now });
        const move = (to: object) => tx.update(bill).set(to).where(eq(bill.id, row!.id));
        if (stage !== 'read') await move({ stage: 'coded', sentBy: clerk, sentAt: now });
        if (stage === 'approved' || stage === 'posted') await move({ stage: 'approved', approvedBy: approver, approvedAt: now });
        return row!.id;
      });
      if (stage === 'posted')
        await postBills.perform(
          world.services,
          await world.as('Halina Voss', code),
          {},
          {
            key: `built-${id}`,
            billIds: [id],
            entryDate: wish.entryDate ?? '2026-11-23',
          },
        );
      return id;
    },
    /** Several bills alike. */
    async bills(n: number, wish: (i: number) => BillWish): Promise<string[]> {
      const ids: string[] = [];
      for (let i = 0; i < n; i++) ids.push(await build.bill(wish(i)));
      return ids;
    },
  };
  return build;
}
