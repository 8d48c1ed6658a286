import { setImmediate as breathe } from 'node:timers/promises';
import {
  DryRun,
  keyOf,
  mappingFault,
  named,
  type Finding,
  type ImportList,
  type ImportValues,
  type Mapping,
} from '@ledgerline/core/imports';
import { dec } from '@ledgerline/core/money';
import type { Executor } from '../db/client.ts';
import type { ImportCounts } from '../db/schema/index.ts';
import { writers, type Current, type Ids, type Writer } from './writers/index.ts';

/** A table with what its columns hold. */
export interface Table {
  list: ImportList;
  heads: readonly string[];
  rows: readonly (readonly string[])[];
  mapping: Mapping;
}
/** What bringing the rows in would do. */
export interface Trial {
  findings: Finding[];
  counts: ImportCounts;
  /** Rows that make or change something. */ changes: { values: ImportValues; own: Current | null }[];
  ids: Ids;
}

/** So many rows are looked through before others have their turn. */
const slice = 2000;

/** Whether a field says the same: figures by their value, names of other rows whatever their case. */
function same(writer: Writer, before: ImportValues, after: ImportValues): boolean {
  return writer.spec.fields.every(({ key, kind, anyCase }) => {
    const [a, b] = [before[key] ?? null, after[key] ?? null];
    if (a === b) return true;
    if (typeof a !== 'string' || typeof b !== 'string') return false;
    if (kind === 'decimal') return dec(a).eq(dec(b));
    return (anyCase || (named as readonly string[]).includes(kind)) && a.toLowerCase() === b.toLowerCase();
  });
}

/** A row as it would be: what the file says over what is there, or over what a new row begins with. Bank details are never emptied. */
function merged(writer: Writer, values: ImportValues, own: Current | null, ids: Ids): ImportValues {
  const said = Object.entries(values).filter(
    ([key, value]) => value !== null || writer.spec.fields.find((f) => f.key === key)?.kind !== 'iban',
  );
  const after: ImportValues = { ...(own ? own.values : writer.fresh(values)), ...Object.fromEntries(said) };
  return writer.tidy ? writer.tidy(after, own, ids) : after;
}

/** Looks through a table against what the company has: what is wrong, and what would be made, changed or stay. Changes nothing. */
export async function trialOf(tx: Executor, companyId: string, { list, heads, rows, mapping }: Table): Promise<Trial> {
  const writer = writers[list];
  const counts: ImportCounts = { rows: rows.length, good: 0, bad: 0, warnings: 0, made: 0, changed: 0, same: 0 };
  if (mappingFault(mapping, writer.spec) !== null) return { findings: [], counts, changes: [], ids: {} };
  const ids = await writer.ids(tx, companyId),
    there = await writer.current(tx, companyId);
  const parent = writer.spec.parent;
  const dry = new DryRun(writer.spec, heads, rows, mapping, {
    names: Object.fromEntries(Object.entries(ids).map(([of, map]) => [of, new Set(map.keys())])),
    terms: (await writer.terms?.(tx, companyId)) ?? [],
    parents: new Map(
      parent ? [...there].map(([key, { values }]) => [key, typeof values[parent] === 'string' ? values[parent].toLowerCase() : null]) : [],
    ),
  });
  for (let at = 0; at < rows.length; at += slice) {
    dry.slice(at, at + slice);
    await breathe();
  }
  const { good, findings, bad } = dry.done();
  counts.bad = bad;
  const changes: Trial['changes'] = [];
  for (const { row, values } of good) {
    const own = there.get(keyOf(writer.spec, values)) ?? null,
      after = merged(writer, values, own, ids);
    const doubts = writer.doubts?.(after, there, own, ids) ?? [];
    for (const { severity, sentence } of doubts) findings.push({ row, column: null, cell: null, severity, sentence });
    if (doubts.some((d) => d.severity === 'error')) {
      counts.bad++;
      continue;
    }
    counts.good++;
    if (own && same(writer, own.values, after)) counts.same++;
    else {
      counts[own ? 'changed' : 'made']++;
      changes.push({ values: after, own });
    }
  }
  counts.warnings = findings.filter((f) => f.severity === 'warning').length;
  findings.sort((a, b) => a.row - b.row);
  return { findings, counts, changes, ids };
}
