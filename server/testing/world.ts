import { and, eq } from 'drizzle-orm';
import pg from 'pg';
import { v7 } from 'uuid';
import { inject } from 'vitest';
import type { TObject } from '@sinclair/typebox';
import type { Bill } from '@ledgerline/contract';
import { makeInvoice, type Invoice, type Wish } from '@ledgerline/documents/invoice';
import { makePdf } from '@ledgerline/documents/maker';
import { seeded } from '@ledgerline/documents/random';
import { suppliers } from '@ledgerline/documents/suppliers';
import { makeApi } from '../app.ts';
import { Opener } from '../arrivals/opener.ts';
import { SheetPool } from '../imports/pool.ts';
import { importRows } from '../imports/run.ts';
import { meOf } from '../auth/people.ts';
import { approve, sendOn } from '../bills/moves.ts';
import { getBill } from '../bills/show.ts';
import type { Caller, Command, Params } from '../commands/command.ts';
import { connect, type Database } from '../db/client.ts';
import { bill, person } from '../db/schema/index.ts';
import { doorOf } from '../http/door.ts';
import { Live } from '../live/live.ts';
import { openArrival } from '../mail/message.ts';
import { ReadingPool } from '../reading/pool.ts';
import { readArrived } from '../reading/service.ts';
import type { Services } from '../services.ts';
import { takeFiles } from './arrivals.ts';
import { builders } from './build.ts';
import { writeMaster, type Master } from './master.ts';

export interface World {
  services: Services;
  database: Database;
  master: Master;
  /** As the application's role. */ url: string;
  ownerUrl: string;
  /** Past all rights, for looking and for breaking things. */ owner: pg.Pool;
  api: ReturnType<typeof makeApi>;
  /** Straight into the database. */ build: ReturnType<typeof builders>;
  queue: string[];
  as(name: string, companyCode?: string): Promise<Caller>;
  /** Does a use case as somebody. */
  run<B extends TObject, S, A>(use: Command<B, S, A>, as: Caller, params: Params, body: unknown): Promise<A>;
  /** A bill as the desk gets it. */
  show(id: string, companyCode?: string): Promise<Bill>;
  rows(text: string, ...values: unknown[]): Promise<pg.QueryResult['rows']>;
  someSupplier(companyCode: string): string | undefined;
  drain(): Promise<void>;
  /** Brings the master data into a world that was made without. */ fill(): Promise<void>;
  close(): Promise<void>;
}

export const testDay = '2026-11-23';

/** A database of its own with small master data (`filled`), the services on it, and a queue that the test empties itself. */
export async function makeWorld(filled = true): Promise<World> {
  const template = new URL(inject('templateUrl'));
  const name = `t_${v7().replace(/-/g, '')}`;
  const admin = new URL(template);
  admin.pathname = '/postgres';
  const client = new pg.Client({ connectionString: admin.href });
  await client.connect();
  await client.query(`CREATE DATABASE ${name} TEMPLATE ${template.pathname.slice(1)}`);
  await client.end();
  template.pathname = `/${name}`;
  const application = new URL(inject('applicationUrl'));
  application.pathname = template.pathname;
  const owner = new pg.Pool({ connectionString: template.href, max: 4 });
  const database = connect(application.href);
  const messages: string[] = [],
    queue: string[] = [],
    pictures: string[] = [],
    imports: string[] = [];
  const reader = new ReadingPool(1),
    opener = new Opener(),
    sheets = new SheetPool();
  const services: Services = {
    database,
    reader,
    live: new Live(),
    door: doorOf(),
    opener,
    sheets,
    queue: {
      opening: async (_, id) => void messages.push(id),
      reading: async (_, id) => void queue.push(id),
      scanning: async (_, id) => void pictures.push(id),
      importing: async (_, id) => void imports.push(id),
    },
    now: () => new Date(`${testDay}T10:00:00Z`),
  };
  const fill = () => database.db.transaction((tx) => writeMaster(tx, testDay));
  const master = filled ? await fill() : (undefined as never);
  const world: World = {
    services,
    database,
    master,
    owner,
    url: application.href,
    ownerUrl: template.href,
    api: makeApi(services, true),
    build: undefined as never,
    queue,
    as: (who, companyCode = 'MBG') => callerOf(services, who, world.master.company(companyCode).id),
    run: (use, as, params, body) => use.perform(services, as, params, body),
    show: (id, companyCode = 'MBG') =>
      getBill(database.db, { ...world.master.company(companyCode), roles: ['clerk', 'controller'] }, id, testDay),
    rows: async (text, ...values) => (await owner.query(text, values)).rows,
    someSupplier: (code) => suppliers.find((s) => s.company === code)?.name,
    async drain() {
      for (const id of imports.splice(0)) await importRows(services, id);
      while (messages.length + queue.length + pictures.length > 0) {
        if (messages.length > 0) await openArrival(services, messages.shift()!);
        else if (queue.length > 0) await readArrived(services, queue.shift()!);
        else await readArrived(services, pictures.shift()!, true);
      }
    },
    async fill() {
      world.master = await fill();
    },
    async close() {
      await Promise.all([reader.close(), opener.close(), sheets.close()]);
      await database.close();
      await owner.end();
    },
  };
  world.build = builders(world);
  return world;
}

async function callerOf(services: Services, name: string, companyId: string): Promise<Caller> {
  const me = await meOf(services.database.db, eq(person.name, name));
  const company = me?.companies.find((c) => c.id === companyId);
  if (!me || !company) throw new Error(`The test world has no ${name} there`);
  return { me, company, source: 'test' };
}

export function invoiceOf(index: number, wish: Partial<Wish> & { number: string }): Invoice {
  return makeInvoice(suppliers[index]!, seeded(index + 5), { issueDate: '2026-11-20', ...wish });
}

/** Takes an invoice in as an upload, has it read, and gives its bill's id. */
export async function arrive(world: World, invoice: Invoice): Promise<string> {
  const { company: code } = invoice.supplier,
    companyId = world.master.company(code).id;
  await takeFiles(world, [{ name: `${invoice.number}.pdf`, mediaType: 'application/pdf', bytes: await makePdf(invoice) }], {
    company: code,
  });
  const [row] = await world.database.db
    .select({ id: bill.id })
    .from(bill)
    .where(and(eq(bill.companyId, companyId), eq(bill.invoiceNumber, invoice.number)));
  if (!row) throw new Error(`No bill was made of ${invoice.number}`);
  return row.id;
}

/** Sends a bill on and approves it, by those who do it. */
export async function sentAndApproved(world: World, id: string, code = 'MBG'): Promise<void> {
  const version = async () => ({ rowVersion: (await world.show(id, code)).rowVersion });
  await world.run(sendOn, await world.as('Ines Okafor', code), { id }, await version());
  await world.run(approve, await world.as(code === 'MNT' ? 'Rufus Pell' : 'Marguerite Sable', code), { id }, await version());
}

/** Takes a bill from arrival to ready to post. */
export async function readyToPost(world: World, invoice: Invoice): Promise<string> {
  const id = await arrive(world, invoice);
  await sentAndApproved(world, id, invoice.supplier.company);
  return id;
}
