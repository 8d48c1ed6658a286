import type { DateOrder } from '../../dates/index.ts';
import type { Layout } from '../layout.ts';
import { Features } from '../learned/features.ts';
import { surroundingsOf } from './around.ts';
import { dateFeatures, printedDates, type PrintedDate } from './dates.ts';
import { nameFeatures } from './namefeatures.ts';
import { printedNames, type Known, type PrintedName } from './names.ts';
import { referenceFeatures, references, type Reference } from './references.ts';

/** What the application knows beforehand. */
export interface Context {
  /** Our own companies: they are the buyer, wherever they stand. */ companies?: readonly Known[];
}
/** What may have a role in a document's head, with all that speaks for or against each; "none" is the last. */
export interface Evidence {
  references: Reference[];
  dates: PrintedDate[];
  /** Each date as it is read in this document. */ days: string[];
  names: PrintedName[];
  of: { reference: Features[]; date: Features[]; name: Features[] };
}

function none(...counts: [what: string, n: number][]): Features {
  const f = new Features();
  f.add('none');
  for (const [what, n] of counts) f.add(`none of ${what} ${n}`);
  return f;
}

/** Everything on the page that may be a number, a date or a name of the head, and what is seen round it. */
export function evidenceOf(layout: Layout, order: DateOrder, { companies = [] }: Context = {}): Evidence {
  const all = surroundingsOf(layout);
  const numbers = references(all),
    dates = printedDates(all),
    names = printedNames(layout, all);
  const days = dates.map(({ dates: d }) => d[order] ?? d['day-first'] ?? d['month-first'] ?? d['year-first']!);
  const labels = new Set(layout.rows.flatMap((r) => r.fields.filter((f) => !f.weak).map((f) => f.role)));
  const known = [...labels].map((role): [string, number] => [`label ${role}`, 1]);
  return {
    references: numbers,
    dates,
    days,
    names,
    of: {
      reference: [...referenceFeatures(layout, all, numbers), none(['references', Math.min(8, numbers.length >> 4)], ...known)],
      date: [...dateFeatures(layout, all, dates, days), none(['dates', Math.min(6, new Set(days).size)], ...known)],
      name: nameFeatures(layout, all, names, companies),
    },
  };
}
