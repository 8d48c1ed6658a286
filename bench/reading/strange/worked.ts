import type { Random, TruthLine } from '../content.ts';
import type { Look } from '../look.ts';
import { printNumber } from '../look.ts';
import type { Sheet } from '../sheet.ts';
import { printedOf, type Cell, type Printed } from './body.ts';
import { word } from './words.ts';

/** Bodies in which figures beside the line's own ones stand that make them: readings of a meter, days of a week, work to date, a list price. */
export const workedBodies = ['metered', 'week', 'to date', 'list and net', 'labelled'] as const;
export type WorkedBody = (typeof workedBodies)[number];

interface Drawing {
  s: Sheet;
  /** The line's place in the document, from 0. */ i: number;
  line: TruthLine;
  /** Where a share of the width stands. */ at(share: number): number;
  money(value: string): string;
  unit: string;
  /** What stands before a line's own figures, where they are labelled in each line. */ labels: Record<
    'quantity' | 'price' | 'amount',
    string
  >;
  places: number;
  put(cells: (Cell | null)[]): void;
  step: number;
}
const num = (look: Look) => (v: string) => printNumber(v, look);
const whole = (q: string | null): q is string => q !== null && /^\d+$/.test(q);

/** The headings of such a body; a place among the width for each. */
export function workedHead(body: WorkedBody, r: Random, cell: (text: string, share: number, right?: boolean) => Cell): (Cell | null)[] {
  const of = (label: Parameters<typeof word>[1], share: number, right = true) => cell(word(r, label), share, right);
  switch (body) {
    case 'metered':
      return [
        of('description', 0, false),
        cell(r.pick(['Last', 'Then', 'Forrige', 'Alt']), 0.5),
        cell(r.pick(['Now', 'This', 'Nå', 'Neu']), 0.6),
        of('quantity', 0.7),
        of('price', 0.84),
        of('amount', 1),
      ];
    case 'week':
      return [
        of('description', 0, false),
        ...['M', 'T', 'W', 'Th', 'F'].map((day, k) => cell(day, 0.4 + k * 0.06)),
        of('quantity', 0.72),
        of('price', 0.85),
        of('amount', 1),
      ];
    case 'to date':
      return [
        of('description', 0, false),
        cell(r.pick(['Sum', 'Contract', 'Anbud']), 0.5),
        cell(r.pick(['To date', 'Done', 'Utført']), 0.66),
        cell(r.pick(['Before', 'Certified', 'Tidligere']), 0.82),
        of('amount', 1),
      ];
    case 'list and net':
      return [
        of('description', 0, false),
        cell(r.pick(['List', 'RRP', 'Brutto']), 0.52),
        cell(r.pick(['Less', '%', 'Rab.']), 0.6),
        of('price', 0.72),
        of('quantity', 0.82),
        of('amount', 1),
      ];
    case 'labelled':
      return [];
  }
}

/** Draws one line of such a body; what is printed of it is given back. */
export function drawWorked(body: WorkedBody, d: Drawing): Printed {
  const { s, i, line, at, money, put, places } = d,
    n = num(s.look),
    { quantity: q, unitPrice: p, amount } = line;
  const out = { ...printedOf(line), taxRate: null };
  const right = (text: string | null, share: number): Cell | null => (text === null ? null : { text, x: at(share), right: true });
  const words: Cell = { text: line.description, x: at(0) },
    last = right(money(amount), 1);
  switch (body) {
    case 'metered': {
      const before = 10_400 + 731 * i;
      put([
        words,
        q !== null ? right(String(before), 0.5) : null,
        q !== null ? right(n((before + Number(q)).toFixed(whole(q) ? 0 : 2)), 0.6) : null,
        q === null ? null : right(n(q), 0.7),
        p === null ? null : right(n(p), 0.84),
        last,
      ]);
      return out;
    }
    case 'week': {
      // The days of the week add up to the quantity.
      const days = whole(q) && Number(q) > 0 ? Array.from({ length: 5 }, (_, k) => Math.floor((Number(q) + k) / 5)) : [];
      put([
        words,
        ...days.map((of, k) => (of > 0 ? right(String(of), 0.4 + k * 0.06) : null)),
        q === null ? null : right(n(q), 0.72),
        p === null ? null : right(n(p), 0.85),
        last,
      ]);
      return out;
    }
    case 'to date': {
      const before = Math.round(Number(amount) * (1 + (i % 3))),
        done = before + Number(amount);
      put([
        words,
        right(n((done + 400 * (i % 2)).toFixed(places)), 0.5),
        right(n(done.toFixed(places)), 0.66),
        right(n(before.toFixed(places)), 0.82),
        last,
      ]);
      return { ...out, quantity: null, unitPrice: null };
    }
    case 'list and net':
      put([
        words,
        p === null ? null : right(n((Number(p) / 0.8).toFixed(places)), 0.52),
        p === null ? null : right(n('20'), 0.6),
        p === null ? null : right(n(p), 0.72),
        q === null ? null : right(n(q), 0.82),
        last,
      ]);
      return out;
    case 'labelled': {
      s.text(line.description, at(0), s.y, { bold: true });
      s.y += d.step;
      const said = [q && `${d.labels.quantity} ${n(q)} ${d.unit}`, p && `${d.labels.price} ${n(p)}`].filter(Boolean).join('   ');
      put([{ text: said || d.unit, x: at(0.03) }, { text: d.labels.amount, x: at(0.7) }, last]);
      return out;
    }
  }
}
