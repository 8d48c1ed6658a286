import type { ListedTerms } from '../terms/index.ts';
import { readCell, styleOf, type ColumnStyle } from './cells.ts';
import type { Mapping } from './mapping.ts';
import { named, type Finding, type GoodRow, type ImportField, type ImportValues, type ListSpec, type Named } from './types.ts';

/** What the company has: codes that cells may name, in lower case, and each row's parent where a list has one. */
export interface Known {
  names: Partial<Record<Named, ReadonlySet<string>>>;
  /** Payment terms that the company names itself. */ terms?: readonly ListedTerms[];
  /** Parent codes by code, in lower case. */ parents: ReadonlyMap<string, string | null>;
}
export interface Checked {
  good: GoodRow[];
  findings: Finding[];
  /** How many rows have an error. */ bad: number;
}
interface Column {
  at: number;
  head: string;
  field: ImportField;
  style: ColumnStyle;
}

const called: Record<Named, string> = {
  account: 'account',
  'cost-centre': 'cost centre',
  'tax-code': 'tax code',
  dimension: 'dimension',
  'dimension-value': 'value of a dimension',
  supplier: 'supplier with the code',
  person: 'person here with the mail address',
  order: 'order',
};
/** The longest chain of parents, as the database has it. */
const deepest = 20;

/** What tells one row from another, in lower case. */
export const keyOf = (spec: ListSpec, values: ImportValues): string =>
  spec.key.map((key) => String(values[key] ?? '').toLowerCase()).join(' ');

/** The dry run of a table's rows. `n` goes on from the heads' row, which is 1. Done in slices, so that a large file holds up nobody. */
export class DryRun {
  private readonly columns: Column[];
  private readonly ownCodes: ReadonlySet<string>;
  private readonly seen = new Map<string, number>();
  readonly good: GoodRow[] = [];
  readonly findings: Finding[] = [];
  private readonly badRows = new Set<number>();
  private readonly firsts = new Map<string, { row: number; values: ImportValues }>();

  constructor(
    private readonly spec: ListSpec,
    heads: readonly string[],
    private readonly rows: readonly (readonly string[])[],
    mapping: Mapping,
    private readonly known: Known,
  ) {
    this.columns = mapping.flatMap((key, at) => {
      const field = spec.fields.find((f) => f.key === key);
      return field
        ? [
            {
              at,
              head: heads[at] ?? '',
              field,
              style: styleOf(['day', 'decimal'].includes(field.kind) ? rows.map((r) => r[at] ?? '') : []),
            },
          ]
        : [];
    });
    const code = this.columns.find((c) => c.field.kind === 'code');
    this.ownCodes = new Set(code && spec.parent ? rows.map((r) => (r[code.at] ?? '').trim().toLowerCase()) : []);
    for (const { field, head, style } of this.columns)
      if (field.kind === 'day' && style.open)
        this.say(1, head, 'warning', 'Nothing tells whether the day or the month comes first. Read with the day first.');
  }

  /** Looks through rows from one to another (not with it). */
  slice(from: number, to: number): void {
    for (let i = from; i < Math.min(to, this.rows.length); i++) this.row(this.rows[i]!, i + 2);
  }

  /** What was found, once all rows were looked through. */
  done(): Checked {
    this.hang();
    return { good: this.good.filter((g) => !this.badRows.has(g.row)), findings: this.findings, bad: this.badRows.size };
  }

  private say(row: number, column: string | null, severity: Finding['severity'], sentence: string, cell: string | null = null): void {
    this.findings.push({ row, column, cell, severity, sentence });
    if (severity === 'error') this.badRows.add(row);
  }

  private row(cells: readonly string[], row: number): void {
    if (cells.every((cell) => cell.trim() === '')) return;
    const values: ImportValues = {};
    for (const { at, head, field, style } of this.columns) {
      const read = readCell(field, cells[at] ?? '', style, this.known.terms);
      if ('wrong' in read) this.say(row, head, 'error', read.wrong, cells[at] ?? '');
      else {
        values[field.key] = read.value;
        if ((named as readonly string[]).includes(field.kind) && typeof read.value === 'string') this.names(row, head, field, read.value);
      }
    }
    this.together(row, values);
    this.agrees(row, values);
    const key = keyOf(this.spec, values),
      before = this.seen.get(key);
    // Part of what tells rows apart may be left empty where the field may be.
    const whole = this.spec.key.every((k) => (values[k] ?? null) !== null || !this.spec.fields.find((f) => f.key === k)?.required);
    if (whole) {
      if (before !== undefined) this.say(row, null, 'error', `This ${this.spec.what} is in row ${before} already.`);
      else this.seen.set(key, row);
    }
    if (!this.badRows.has(row)) this.good.push({ row, values });
  }

  /** A cell that names a row of a list. */
  private names(row: number, head: string, field: ImportField, value: string): void {
    const known = this.known.names[field.kind as Named] ?? new Set<string>(),
      own = field.key === this.spec.parent && this.ownCodes.has(value.toLowerCase());
    if (own || known.has(value.toLowerCase())) return;
    const some = known.size <= 8 && known.size > 0 ? ` There are ${[...known].join(', ').toUpperCase()}.` : '';
    this.say(
      row,
      head,
      'error',
      `There is no ${called[field.kind as Named]} “${value.slice(0, 40)}”.${field.kind === 'tax-code' ? some : ''}`,
      value,
    );
  }

  /** What only several cells together tell. */
  private together(row: number, values: ImportValues): void {
    const { validFrom, validTo } = values;
    if (typeof validFrom === 'string' && typeof validTo === 'string' && validTo < validFrom)
      this.say(row, null, 'error', 'The last day is before the first.');
  }

  /** Rows that are parts of one thing say the same of it. */
  private agrees(row: number, values: ImportValues): void {
    const { together } = this.spec,
      of = together && values[together.by];
    if (!together || typeof of !== 'string') return;
    const first = this.firsts.get(of.toLowerCase());
    if (!first) return void this.firsts.set(of.toLowerCase(), { row, values });
    for (const key of together.same) {
      const [own, theirs] = [values[key], first.values[key]];
      const field = this.columns.find((c) => c.field.key === key);
      if (field && own !== undefined && theirs !== undefined && String(own).toLowerCase() !== String(theirs).toLowerCase())
        this.say(row, field.head, 'error', `${of} has ${String(theirs)} in row ${first.row}.`, String(own));
    }
  }

  /** Rows whose parent does not come after all, and rows that stand under themselves. Each that is left out may leave out others. */
  private hang(): void {
    const { parent } = this.spec;
    const column = this.columns.find((c) => c.field.key === parent);
    if (!parent || !column) return;
    const text = (value: unknown) => (typeof value === 'string' ? value.toLowerCase() : null);
    const left = () => this.good.filter((g) => !this.badRows.has(g.row));
    for (let before = -1; before !== this.badRows.size;) {
      before = this.badRows.size;
      const rows = left(),
        codes = new Set(rows.map((g) => text(g.values['code'])));
      for (const { row, values } of rows) {
        const over = text(values[parent]);
        if (over === null || codes.has(over) || this.known.parents.has(over)) continue;
        const cell = String(values[parent]);
        this.say(row, column.head, 'error', `“${cell.slice(0, 40)}” is left out, so nothing can stand under it.`, cell);
      }
      if (before === this.badRows.size) this.rings(left(), parent, text);
    }
  }

  private rings(rows: readonly GoodRow[], parent: string, text: (value: unknown) => string | null): void {
    const parents = new Map(this.known.parents);
    for (const { values } of rows) parents.set(text(values['code'])!, text(values[parent]));
    for (const { row, values } of rows) {
      const own = text(values['code'])!;
      let at = parents.get(own) ?? null;
      for (let steps = 0; at !== null; steps++) {
        if (at === own || steps > deepest) {
          this.say(row, null, 'error', `This ${this.spec.what} stands under itself.`);
          break;
        }
        at = parents.get(at) ?? null;
      }
    }
  }
}
