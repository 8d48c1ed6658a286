import { decOrNull, grouped } from '../money/index.ts';
import { sure, type HeaderField, type Read, type Reading } from '../reading/index.ts';
import { squash } from '../reading/identifiers.ts';

/** A value that the data of a hybrid file says one way and its page another. */
export interface Difference {
  field: HeaderField;
  data: string;
  page: string;
  sentence: string;
}

const compared: [HeaderField, string][] = [
  ['supplierName', 'The supplier'],
  ['supplierTaxId', 'The supplier’s tax number'],
  ['supplierIban', 'The bank account'],
  ['invoiceNumber', 'The invoice number'],
  ['issueDate', 'The invoice date'],
  ['dueDate', 'The due date'],
  ['currency', 'The currency'],
  ['netTotal', 'The net'],
  ['taxTotal', 'The tax'],
  ['grossTotal', 'The total'],
];
const figures = new Set<HeaderField>(['netTotal', 'taxTotal', 'grossTotal']);

function alike(field: HeaderField, a: Read, b: Read): boolean {
  if (figures.has(field))
    return (
      decOrNull(a.value)
        ?.abs()
        .eq(decOrNull(b.value)?.abs() ?? 'NaN') ?? false
    );
  const [x, y] = [squash(a.value), squash(b.value)];
  return field === 'supplierName' ? x.includes(y) || y.includes(x) : x === y;
}

/**
 * Compares an e-invoice's data with what its page reads: supplier, number, dates, bank account, totals. A value that the page does
 * not show, or shows unsurely, is no difference.
 */
export function compare(data: Reading, page: Reading): Difference[] {
  return compared.flatMap(([field, called]) => {
    const a = data.header[field],
      b = page.header[field];
    const shown = (text: string) => (figures.has(field) ? grouped(text) : text);
    if (!a || !b || alike(field, a, b) || b.confidence < sure) return [];
    return [
      {
        field,
        data: a.value,
        page: b.value,
        sentence: `${called} is ${shown(a.value)} in the e-invoice’s data, but ${shown(b.value)} on its page.`,
      },
    ];
  });
}

/** The data with the marks of the page, wherever both say the same. */
export function withMarks(data: Reading, page: Reading): Reading {
  const header = { ...data.header };
  for (const field of Object.keys(header) as HeaderField[]) {
    const a = header[field],
      b = page.header[field];
    if (a && b?.mark && alike(field, a, b)) header[field] = { ...a, mark: b.mark };
  }
  const lines =
    data.lines.length !== page.lines.length
      ? data.lines
      : data.lines.map((line, i) => {
          const shown = page.lines[i]!;
          const marked = <R extends Read | null>(own: R, other: Read | null): R =>
            own && other?.mark ? { ...own, mark: other.mark } : own;
          if (!decOrNull(line.amount.value)?.eq(shown.amount.value)) return line;
          return {
            ...line,
            code: marked(line.code, shown.code),
            description: marked(line.description, shown.description),
            quantity: marked(line.quantity, shown.quantity),
            unitPrice: marked(line.unitPrice, shown.unitPrice),
            taxRate: marked(line.taxRate, shown.taxRate),
            amount: marked(line.amount, shown.amount),
          };
        });
  return {
    ...data,
    pages: page.pages,
    header,
    lines,
    supplierEmails: data.supplierEmails.length ? data.supplierEmails : page.supplierEmails,
  };
}
