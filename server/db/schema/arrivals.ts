import { boolean, char, index, integer, jsonb, pgTable, primaryKey, real, text, unique, uuid } from 'drizzle-orm/pg-core';
import { sql } from 'drizzle-orm';
import type { Page, Scan } from '@ledgerline/core/page';
import type { Reading } from '@ledgerline/core/reading';
import type { Scanned } from '../../imaging/result.ts';
import type { Progress } from '../../reading/pool.ts';
import type { Findings, PageSource } from '../../reading/result.ts';
import { bytes, id, moment } from './columns.ts';
import { company, person } from './people.ts';

/** Originals, byte for byte, addressed by their SHA-256 (hex). */
export const file = pgTable('file', {
  sha256: char('sha256', { length: 64 }).primaryKey(),
  bytes: bytes('bytes').notNull(),
  size: integer('size').notNull(),
  createdAt: moment('created_at').notNull().defaultNow(),
});

export const arrival = pgTable(
  'arrival',
  {
    id: id(),
    companyId: uuid('company_id')
      .notNull()
      .references(() => company.id),
    channel: text('channel').notNull(),
    sender: text('sender'),
    subject: text('subject'),
    body: text('body'),
    headers: jsonb('headers').$type<[string, string][]>(),
    /** The message or file as it came. */
    fileSha256: char('file_sha256', { length: 64 }).references(() => file.sha256),
    /** Says what is wrong with the arrival as a whole, in a clerk's words. */
    note: text('note'),
    personId: uuid('person_id').references(() => person.id),
    /** Pages that a person left out of every document. */
    leftOut: jsonb('left_out').$type<PageSource[]>().notNull().default([]),
    /** The arrival of another company with which it came. */
    cameWith: uuid('came_with'),
    receivedAt: moment('received_at').notNull().defaultNow(),
    /** opening (kept, to be taken apart), open, failed (could not be taken apart) */
    state: text('state').notNull().default('open'),
    /** How often taking it apart has failed. */
    tries: integer('tries').notNull().default(0),
    /** Tells the same thing that comes through the same door again, such as a message whose sender did not hear that it was kept. */
    doorKey: text('door_key').unique(),
  },
  (t) => [index('arrival_received').on(t.companyId, t.receivedAt, t.id), unique('arrival_of_company').on(t.id, t.companyId)],
);

export const document = pgTable(
  'document',
  {
    id: id(),
    companyId: uuid('company_id')
      .notNull()
      .references(() => company.id),
    arrivalId: uuid('arrival_id')
      .notNull()
      .references(() => arrival.id),
    position: integer('position').notNull().default(0),
    /** Its place among the documents that one file held. */
    part: integer('part').notNull().default(0),
    name: text('name').notNull(),
    mediaType: text('media_type').notNull(),
    fileSha256: char('file_sha256', { length: 64 })
      .notNull()
      .references(() => file.sha256),
    size: integer('size').notNull(),
    /** waiting, reading, read, aside (not an invoice), unreadable, duplicate */
    state: text('state').notNull(),
    note: text('note'),
    duplicateOf: uuid('duplicate_of'),
    pageCount: integer('page_count'),
    reading: jsonb('reading').$type<Reading>(),
    /** Where each of its pages comes from; null until it is read. */
    sources: jsonb('sources').$type<PageSource[]>(),
    /** A person put its pages together: they are read as one document. */
    arranged: boolean('arranged').notNull().default(false),
    /** What the data of an e-invoice says about itself and its page. */
    findings: jsonb('findings').$type<Findings>(),
    /** paper, or data: pages drawn from an e-invoice's data */
    shown: text('shown').notNull().default('paper'),
    /** While its pages are read as pictures: how many are done, and what is being done. */
    progress: jsonb('progress').$type<Progress>(),
    /** The bill that it was brought for: as its own document, or beside it (the order, a delivery note). The database holds both in one company. */
    forBill: uuid('for_bill'),
    further: boolean('further').notNull().default(false),
    readAt: moment('read_at'),
    /** How often reading it has failed. */
    tries: integer('tries').notNull().default(0),
  },
  (t) => [
    index('document_arrival').on(t.arrivalId),
    index('document_for_bill')
      .on(t.forBill)
      .where(sql`${t.forBill} is not null`),
    index('document_file').on(t.companyId, t.fileSha256),
    unique('document_of_company').on(t.id, t.companyId),
  ],
);

export const documentPage = pgTable(
  'document_page',
  {
    documentId: uuid('document_id')
      .notNull()
      .references(() => document.id),
    number: integer('number').notNull(),
    width: real('width').notNull(),
    height: real('height').notNull(),
    words: jsonb('words').$type<Page['words']>().notNull(),
    /** How the page lay in its picture, where it was read from one. */
    scan: jsonb('scan').$type<Scan>(),
  },
  (t) => [primaryKey({ columns: [t.documentId, t.number] })],
);

/** How a document's first page looks: by what others of the same paper or of the same layout are found (core/matching). */
export const documentLook = pgTable(
  'document_look',
  {
    documentId: uuid('document_id')
      .primaryKey()
      .references(() => document.id),
    /** By the figures on it. */
    keys: integer('keys').array().notNull(),
    /** Where which words stand. */
    places: integer('places').array().notNull(),
  },
  (t) => [index('document_look_keys').using('gin', t.keys)],
);

/** What a door cannot take in and somebody has to see to, as it is now: a folder where none belongs, a file that cannot be opened. */
export const notice = pgTable('notice', {
  key: text('key').primaryKey(),
  sentence: text('sentence').notNull(),
  since: moment('since').notNull().defaultNow(),
});

/**
 * Pages that were read as pictures, by file, page and turn, so that none is read twice however documents are put together. `auto`:
 * the turn was found out from the page itself. Holds words of stored files only; who may see a file may see them.
 */
export const scannedPage = pgTable(
  'scanned_page',
  {
    sha256: char('sha256', { length: 64 })
      .notNull()
      .references(() => file.sha256),
    page: integer('page').notNull(),
    turn: integer('turn').notNull(),
    auto: boolean('auto').notNull(),
    read: jsonb('read').$type<NonNullable<Scanned['read']>>().notNull(),
    createdAt: moment('created_at').notNull().defaultNow(),
  },
  (t) => [primaryKey({ columns: [t.sha256, t.page, t.turn] })],
);
