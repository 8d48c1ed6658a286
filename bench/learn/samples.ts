import { readFile } from 'node:fs/promises';
import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import type { Page } from '@ledgerline/core/page';
import type { Content } from '../reading/content.ts';
import { make } from '../reading/draw.ts';
import { rough } from '../reading/rough.ts';
import { strange } from '../reading/strange/index.ts';
import { contentOfPdf } from '../../server/reading/pdf.ts';

/** One document as a truth file has it (the reading format). */
export interface Truth {
  pages: number[];
  kind: string;
  supplier: { name: string | null; taxId: string | null; iban: string | null };
  buyer: { name: string | null };
  invoiceNumber: string | null;
  issueDate: string | null;
  dueDate: string | null;
  purchaseOrder: string | null;
  lines: (Record<'code' | 'description' | 'quantity' | 'unitPrice' | 'taxRate' | 'amount', string | null> & {
    discountPercent?: string | null;
  })[];
  [field: string]: unknown;
}
export interface Sample {
  name: string;
  /** Documents of one family look alike: learned from together or not at all. */ family: string;
  pages: Page[];
  truth: Truth;
  ignore: string[];
  /** Our own companies, as the application would know them. */ companies: { name: string; taxId?: string }[];
  /** By our own maker. */ drawn?: boolean;
}

/** The family of a sample: NAME of NAME-1.pdf, credit-NAME.pdf, badsum-NAME.pdf; of layouts by other people's libraries the library's. */
export function familyOf(name: string): string {
  const bare = name.replace(/^(scan|fax|photo|credit|badsum|other|einv)-/, '');
  return /^(jspdf|micro|pdfinv|maka)-/.test(bare)
    ? bare.split('-')[0]!
    : /^tex-/.test(bare)
      ? bare.split('-').slice(0, 2).join('-')
      : bare.split('-')[0]!;
}

/** Samples with a text layer of folders with truth files; those with several documents in a file, and pictures, are left out. */
export async function samplesOf(folders: readonly string[], families?: readonly string[]): Promise<Sample[]> {
  const found: Sample[] = [];
  for (const folder of folders) {
    const names = readdirSync(folder);
    const json = async (path: string) => JSON.parse(await readFile(path, 'utf8')) as never;
    const companies = names.includes('companies.json')
      ? await json(join(folder, 'companies.json'))
      : await json(join(folder, '..', 'suppliers.json')).then(
          (s: { buyers: Sample['companies'] }) => s.buyers,
          () => [],
        );
    for (const file of names.filter((n) => n.endsWith('.pdf')).sort()) {
      const name = file.slice(0, -4);
      if (/^(scan|fax|photo|pile|einv)-/.test(name) || !names.includes(`${name}.truth.json`)) continue;
      const family = familyOf(name);
      if (families && !families.includes(family)) continue;
      const { documents, ignore = [] }: { documents: Truth[]; ignore?: string[] } = await json(join(folder, `${name}.truth.json`));
      if (documents.length !== 1) continue;
      const { pages } = await contentOfPdf(new Uint8Array(await readFile(join(folder, file))));
      found.push({ name, family, pages, truth: documents[0]!, ignore, companies });
    }
  }
  return found;
}

/** What a made-up document says, as a truth file has it. */
const truthOf = (c: Content, lines: Truth['lines']): Truth => ({
  pages: [1],
  kind: c.kind,
  supplier: { name: c.supplier.name, taxId: c.supplier.taxId, iban: c.supplier.iban },
  buyer: { name: c.buyer.name },
  invoiceNumber: c.number,
  issueDate: c.issueDate,
  dueDate: c.dueDate,
  purchaseOrder: c.order,
  netTotal: c.net,
  taxTotal: c.tax,
  grossTotal: c.gross,
  taxBreakdown: c.taxes,
  charges: c.charges,
  lines,
});

/** Documents of our own maker, one in four of them rough; each is a family of its own. */
export function madeSamples(count: number): Sample[] {
  return Array.from({ length: count }, (_, i) => {
    const { content: c, sheet } = i % 4 === 3 ? rough(700_001 + i) : make(700_001 + i);
    const lines = c.lines.map(({ code, description, quantity, unitPrice, taxRate, amount }) => ({
      code,
      description,
      quantity,
      unitPrice,
      taxRate,
      amount,
    }));
    const truth = truthOf(c, lines);
    return {
      name: `made-${i}`,
      family: `made ${i}`,
      pages: sheet.pages(),
      truth,
      ignore: [],
      companies: [{ name: c.buyer.name }],
      drawn: true,
    };
  });
}

/** Documents of the maker's strange structures; those of one structure are a family. */
export function strangeSamples(count: number, from = 300_001): Sample[] {
  return Array.from({ length: count }, (_, i) => {
    const { content: c, sheet, lines, family, due } = strange(from + i);
    const truth = truthOf({ ...c, dueDate: due }, lines);
    return {
      name: `strange-${from + i}`,
      family,
      pages: sheet.pages(),
      truth,
      ignore: ['currency', 'lines[].taxRate'],
      companies: [{ name: c.buyer.name }],
      drawn: true,
    };
  });
}
