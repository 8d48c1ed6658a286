import Papa from 'papaparse';
import Excel from 'exceljs';
import { Readable } from 'node:stream';
import { euroCubes, euroTable, ratesFor, type EuroRate } from '@ledgerline/core/imports';

/** A table as text: the heads, and below them the rows. */
export interface Sheet {
  heads: string[];
  rows: string[][];
}
export const sheetLimits = { rows: 200_000, columns: 60, letters: 1000 };

/** Why a file is no table, in a clerk's words. */
export class NoSheet extends Error {}

const zip = (bytes: Uint8Array): boolean => bytes[0] === 0x50 && bytes[1] === 0x4b;
const old = (bytes: Uint8Array): boolean => bytes[0] === 0xd0 && bytes[1] === 0xcf;

/** UTF-8 or UTF-16 by its mark; what is not UTF-8 is taken as Windows-1252, in which spreadsheets write. */
function textOf(bytes: Uint8Array): string {
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return new TextDecoder('utf-16le').decode(bytes);
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    return new TextDecoder('windows-1252').decode(bytes);
  }
}

const day = (date: Date): string =>
  date.toISOString().endsWith('T00:00:00.000Z') ? date.toISOString().slice(0, 10) : date.toISOString().slice(0, 16).replace('T', ' ');

/** A spreadsheet's cell as a person sees it; formulas by their result. */
function cellText(value: Excel.CellValue): string {
  if (value === null || value === undefined) return '';
  if (value instanceof Date) return day(value);
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (typeof value === 'number') return Number.isInteger(value) ? String(value) : String(Number(value.toPrecision(15)));
  if (typeof value !== 'object') return String(value);
  if ('richText' in value) return value.richText.map((part) => part.text).join('');
  if ('result' in value) return cellText(value.result as Excel.CellValue);
  if ('text' in value) return cellText(value.text as Excel.CellValue);
  return '';
}

async function fromWorkbook(bytes: Uint8Array): Promise<string[][]> {
  const found: string[][] = [];
  const book = new Excel.stream.xlsx.WorkbookReader(Readable.from(Buffer.from(bytes)), {
    worksheets: 'emit',
    sharedStrings: 'cache',
    styles: 'cache',
    hyperlinks: 'ignore',
    entries: 'ignore',
  });
  for await (const page of book) {
    for await (const row of page) {
      const cells: string[] = [];
      row.eachCell({ includeEmpty: false }, (cell, at) => {
        if (at <= sheetLimits.columns) cells[at - 1] = cellText(cell.value);
      });
      found.push(Array.from(cells, (c) => c ?? ''));
      if (found.length > sheetLimits.rows + 1) return found;
    }
    // The first page that holds anything is the table.
    if (found.some((row) => row.some((c) => c !== ''))) return found;
  }
  return found;
}

function fromText(text: string): string[][] {
  const { data } = Papa.parse<string[]>(text.replace(/^\uFEFF/, ''), { skipEmptyLines: 'greedy', preview: sheetLimits.rows + 2 });
  return data;
}

const rateHeads = ['From', 'Currency', 'Rate'];
function ofEuros(base: string, rates: EuroRate[]): Sheet {
  const rows = ratesFor(base, rates).map((r) => [r.day, r.currency, r.rate]);
  if (rows.length === 0) throw new NoSheet(`This file has rates against the euro, and none for ${base} to work the others out from.`);
  return { heads: rateHeads, rows };
}

/**
 * A file as heads and rows of text: CSV with any sign between cells, XLSX (its first page with anything on it), and for rates the tables
 * against the euro that central banks publish, worked out in `base`. Throws NoSheet.
 */
export async function sheetOf(bytes: Uint8Array, list: string, base: string): Promise<Sheet> {
  if (bytes.length === 0) throw new NoSheet('This file is empty.');
  if (old(bytes)) throw new NoSheet('This is a spreadsheet of the old kind (.xls). Save it as .xlsx or .csv, and choose that.');
  const text = zip(bytes) ? null : textOf(bytes);
  if (text !== null && /^\s*<\?xml|^\s*<[a-z]/i.test(text)) {
    if (list === 'rates') return ofEuros(base, euroCubes(text) ?? []);
    throw new NoSheet('This is an XML file. Choose a .csv or .xlsx file.');
  }
  const table = text === null ? await fromWorkbook(bytes) : fromText(text);
  const start = table.findIndex((row) => row.filter((c) => c.trim() !== '').length > 1);
  const [heads = [], ...rows] = start < 0 ? [] : table.slice(start);
  if (start < 0 || rows.length === 0) throw new NoSheet('This file has no rows under its heads.');
  if (rows.length > sheetLimits.rows)
    throw new NoSheet(`This file has more than ${sheetLimits.rows.toLocaleString('en-GB')} rows. Part it.`);
  if (heads.length > sheetLimits.columns) throw new NoSheet(`This file has more than ${sheetLimits.columns} columns.`);
  const cut = (cell: string | undefined) => (cell ?? '').slice(0, sheetLimits.letters).replaceAll('\u0000', '');
  const wide = heads.length;
  const sheet = { heads: heads.map((h) => cut(h).trim()), rows: rows.map((row) => Array.from({ length: wide }, (_, i) => cut(row[i]))) };
  const euros = list === 'rates' ? euroTable(sheet.heads, sheet.rows) : null;
  return euros ? ofEuros(base, euros) : sheet;
}

/** A table as an XLSX file: every cell as text, so that codes keep their zeros; the heads stay in sight. */
export async function bookOf({ heads, rows }: Sheet): Promise<Uint8Array> {
  const book = new Excel.Workbook(),
    page = book.addWorksheet('List', { views: [{ state: 'frozen', ySplit: 1 }] });
  page.addRow(heads).font = { bold: true };
  page.addRows(rows);
  heads.forEach((head, i) => {
    const column = page.getColumn(i + 1);
    column.numFmt = '@';
    column.width = Math.min(50, Math.max(head.length, ...rows.slice(0, 200).map((row) => (row[i] ?? '').length)) + 2);
  });
  return new Uint8Array(await book.xlsx.writeBuffer());
}
