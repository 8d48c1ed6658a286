import pg from 'pg';
import { v7 } from 'uuid';
import { inject } from 'vitest';
import { seeded } from '@ledgerline/demo/random';
import { makeInvoice, type Invoice, type Wish } from '@ledgerline/demo/invoice';
import { makePdf } from '@ledgerline/demo/documents/maker';
import { writeMaster, callerOf, type Master } from '@ledgerline/demo/load';
import { suppliers } from '@ledgerline/demo/suppliers';
import { makeApi } from '../app.ts';
import { connect, type Database } from '../db/client.ts';
import { bill } from '../db/schema/index.ts';
import type { Caller } from '../http/define.ts';
import { Live } from '../live/live.ts';
import { ReadingPool } from '../reading/pool.ts';
import { readArrived } from '../reading/service.ts';
import type { Services } from '../services.ts';
import { approve, getBill, sendOn } from '../bills/service.ts';
import { and, eq } from 'drizzle-orm';
import { takeFiles } from './arrivals.ts';

export interface World {
  services: Services;
  database: Database;
  master: Master;
  url: string;
  as(name: string, companyCode?: string): Promise<Caller>;
  close(): Promise<void>;
  api: ReturnType<typeof makeApi>;
  queue: string[];
  drain(): Promise<void>;
}

export const testDay = '2026-11-23';

/** A database of its own with the scenario's master data, the services on it, and a queue that the test empties itself. */
export async function makeWorld(): Promise<World> {
  const template = new URL(inject('templateUrl'));
  const name = `t_${v7().replace(/-/g, '')}`;
  const admin = new URL(template);
  admin.pathname = '/postgres';
  const client = new pg.Client({ connectionString: admin.href });
  await client.connect();
  await client.query(`CREATE DATABASE ${name} TEMPLATE ${template.pathname.slice(1)}`);
  await client.end();
  template.pathname = `/${name}`;
  const database = connect(template.href);
  const queue: string[] = [],
    pictures: string[] = [];
  const reader = new ReadingPool(1);
  const services: Services = {
    database,
    reader,
    live: new Live(),
    queueReading: async (id) => {
      queue.push(id);
    },
    queueScanning: async (id) => {
      pictures.push(id);
    },
    now: () => new Date(`${testDay}T10:00:00Z`),
  };
  const master = await database.db.transaction((tx) => writeMaster(tx, testDay));
  return {
    services,
    database,
    master,
    url: template.href,
    api: makeApi(services),
    queue,
    as: (person, companyCode = 'MBG') => callerOf(services, person, master.company(companyCode).id),
    async drain() {
      while (queue.length + pictures.length > 0) {
        const id = queue.shift();
        if (id === undefined) await readArrived(services, pictures.shift()!, true);
        else await readArrived(services, id);
      }
    },
    async close() {
      await reader.close();
      await database.close();
    },
  };
}

export function invoiceOf(index: number, wish: Partial<Wish> & { number: string }): Invoice {
  return makeInvoice(suppliers[index]!, seeded(index + 5), { issueDate: '2026-11-20', ...wish });
}

/** Takes an invoice in as an upload, has it read, and gives its bill's id. */
export async function arrive(world: World, invoice: Invoice): Promise<string> {
  const { company } = invoice.supplier,
    companyId = world.master.company(company).id;
  await takeFiles(world, [{ name: `${invoice.number}.pdf`, mediaType: 'application/pdf', bytes: await makePdf(invoice) }], { company });
  const [row] = await world.database.db
    .select({ id: bill.id })
    .from(bill)
    .where(and(eq(bill.companyId, companyId), eq(bill.invoiceNumber, invoice.number)));
  if (!row) throw new Error(`No bill was made of ${invoice.number}`);
  return row.id;
}

/** Takes a bill from arrival to ready to post. */
export async function readyToPost(world: World, invoice: Invoice): Promise<string> {
  const id = await arrive(world, invoice);
  const code = invoice.supplier.company;
  const clerk = await world.as('Ines Okafor', code);
  const current = await getBill(world.database.db, clerk, id, testDay);
  const sent = await sendOn(world.services, clerk, id, current.rowVersion);
  await approve(world.services, await world.as(code === 'MNT' ? 'Rufus Pell' : 'Marguerite Sable', code), id, sent.rowVersion);
  return id;
}
