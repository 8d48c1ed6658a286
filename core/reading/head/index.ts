import type { Mark } from '../../page/index.ts';
import { dueDate, parseTerms } from '../../terms/index.ts';
import type { DateOrder } from '../../dates/index.ts';
import { stepped } from '../calibration.ts';
import { isIban } from '../iban.ts';
import { squash } from '../identifiers.ts';
import type { Layout } from '../layout.ts';
import { reasonsOf, scoreOf, sharesOf, type Model } from '../learned/model.ts';
import { learned, type Role } from '../learned/weights.ts';
import type { Features } from '../learned/features.ts';
import type { Kind, Read } from '../types.ts';
import { evidenceOf, type Context, type Evidence } from './evidence.ts';

export type { Context } from './evidence.ts';
export type { Known } from './names.ts';

const modelOf = (role: Role): Model => learned().head[role];

/** One value that may have a role: with every place where it stands. */
export interface Ranked {
  value: string | null;
  /** How sure, as it is measured: 0.9 is right nine times in ten. */ share: number;
  /** Its best place among the candidates; -1 for none. */ best: number;
}

/** Values of a role by how sure they are; what stands in several places is as sure as all of them. */
export function ranked(model: Model, features: readonly Features[], values: readonly (string | null)[]): Ranked[] {
  if (features.length === 0) return [];
  const shares = sharesOf(features.map((f) => scoreOf(model, f)));
  const by = new Map<string | null, Ranked & { top: number }>();
  for (const [i, value] of values.entries()) {
    const one = by.get(value) ?? { value, share: 0, best: i, top: 0 };
    one.share += shares[i]!;
    if (shares[i]! > one.top) [one.top, one.best] = [shares[i]!, i];
    by.set(value, one);
  }
  return [...by.values()].sort((a, b) => b.share - a.share);
}

/** The measured share of right ones among values chosen with a share like this. */
const measured = (role: Role, share: number): number => stepped(learned().headRight[role], share);

export type Head = Record<
  'supplierName' | 'supplierTaxId' | 'buyerName' | 'invoiceNumber' | 'issueDate' | 'dueDate' | 'purchaseOrder',
  Read | null
>;

/** Roles that nothing was chosen for, though something may be there. */
function maybe(role: Role, list: readonly Ranked[], said: Read | null): boolean {
  const none = list.find((r) => r.value === null);
  return said === null && none !== undefined && measured(role, none.share) < 0.75;
}

/** The facts of a document's head: each with its place, how sure it is, what spoke for it, and what else it might be. Dates need the terms. */
export function readHead(layout: Layout, order: DateOrder, context: Context = {}): Omit<Head, 'issueDate' | 'dueDate'> & Later {
  const evidence = evidenceOf(layout, order, context);
  const keys = [...evidence.references.map((r) => r.key), null];
  const orders = ranked(modelOf('purchaseOrder'), evidence.of.reference, keys);
  const facts = { ...numbersOf(evidence, keys, orders), ...taxIdOf(evidence, context), ...namesOf(evidence) };
  return {
    ...facts,
    orderMissed: maybe('purchaseOrder', orders, facts.purchaseOrder),
    dates: (terms, kind) => datesOf(evidence, terms, kind),
    dueMissed: (due) => maybe('dueDate', ranked(modelOf('dueDate'), evidence.of.date, [...evidence.days, null]), due),
  };
}
interface Later {
  /** No order number was chosen, though one may be printed. */ orderMissed: boolean;
  dates(terms: Read | null, kind: Kind): Pick<Head, 'issueDate' | 'dueDate'>;
  dueMissed(due: Read | null): boolean;
}

/** A candidate as it is said, with what else it might be. */
function said(
  role: Role,
  list: readonly Ranked[],
  chosen: Ranked,
  mark: (r: Ranked) => Mark | null,
  features: readonly Features[],
  text: (r: Ranked) => string,
): Read {
  return {
    value: text(chosen),
    mark: mark(chosen),
    confidence: measured(role, chosen.share),
    proof: null,
    why: reasonsOf(modelOf(role), features[chosen.best]!),
    rivals: list
      .filter((r) => r !== chosen && r.value !== null && r.share > 0.01)
      .slice(0, 4)
      .map((r) => ({ value: text(r), mark: mark(r), confidence: r.share })),
  };
}

/** The document's own number and that of the order: two, and not the same one. */
function numbersOf(
  { references, of }: Evidence,
  keys: readonly (string | null)[],
  order: readonly Ranked[],
): Pick<Head, 'invoiceNumber' | 'purchaseOrder'> {
  // An amount is no number, however bare the page, and a date only where words beside it say so: "nr 14/11/2026".
  const bare = (r: Ranked) => {
    const seen = of.reference[r.best]!;
    return !seen.has('is an amount') && (!seen.has('is a date') || seen.has('left says number'));
  };
  // Where several pages bear a number of their own, the document goes by the first: what stands there is looked at alone.
  const front = references.findIndex((r) => r.mark.page !== references[0]!.mark.page);
  const numbers = (features: readonly Features[], values: readonly (string | null)[]) =>
    ranked(modelOf('invoiceNumber'), features, values).filter((r) => r.value === null || bare(r));
  const first = front < 0 ? [] : numbers([...of.reference.slice(0, front), of.reference.at(-1)!], [...keys.slice(0, front), null]);
  const own = first[0] && first[0].value !== null && first[0].share > 0.5 ? first : numbers(of.reference, keys);
  let best: { share: number; own: Ranked | undefined; order: Ranked | undefined } = { share: -1, own: own[0], order: order[0] };
  for (const a of own.slice(0, 4))
    for (const b of order.slice(0, 4))
      if ((a.value === null || a.value !== b.value) && a.share * b.share > best.share)
        best = { share: a.share * b.share, own: a, order: b };
  // What an invoice must have and what may be it is printed: the best is said, and how unsure it is.
  const number = (best.own?.value ?? null) === null ? own.find((r) => r.value !== null && r.value !== best.order?.value) : best.own;
  const mark = (r: Ranked) => references[r.best]?.mark ?? null,
    text = (r: Ranked) => references[r.best]!.value;
  return {
    invoiceNumber: number ? said('invoiceNumber', own, number, mark, of.reference, text) : null,
    purchaseOrder: best.order && best.order.value !== null ? said('purchaseOrder', order, best.order, mark, of.reference, text) : null,
  };
}

/** The sender's tax number: none that is ours, and no bank account. */
function taxIdOf({ references, of }: Evidence, { companies = [] }: Context): Pick<Head, 'supplierTaxId'> {
  const ours = new Set(companies.flatMap((c) => (c.taxId ? [squash(c.taxId)] : [])));
  const list = ranked(modelOf('supplierTaxId'), of.reference, [...references.map((r) => squash(r.key)), null]);
  const top = list.find((r) => r.value === null || !(ours.has(r.value) || isIban(r.value)));
  if (!top || top.value === null) return { supplierTaxId: null };
  return {
    supplierTaxId: said(
      'supplierTaxId',
      list,
      top,
      (r) => references[r.best]?.mark ?? null,
      of.reference,
      (r) => r.value!,
    ),
  };
}

/** The day it was made and the day it is to be paid: the second not before the first, and as the terms say where they say it. */
function datesOf({ dates, days, of }: Evidence, terms: Read | null, kind: Kind): Pick<Head, 'issueDate' | 'dueDate'> {
  const values = [...days, null];
  const issued = ranked(modelOf('issueDate'), of.date, values),
    due = ranked(modelOf('dueDate'), of.date, values);
  const parsed = terms ? parseTerms(terms.value) : null;
  const counted = (day: string) => (parsed ? dueDate(day, parsed) : null);
  const soon = 130 * 86_400_000,
    long = 185 * 86_400_000;
  const later = (day: string) => days.some((d) => d > day && Date.parse(d) - Date.parse(day) < soon);
  let best: { score: number; issued: Ranked | undefined; due: Ranked | undefined } = { score: -Infinity, issued: issued[0], due: due[0] };
  for (const a of issued.slice(0, 5))
    for (const b of due.slice(0, 5)) {
      if (a.value === null) continue;
      let score = Math.log(a.share) + Math.log(b.share);
      if (b.value !== null) {
        if (b.value < a.value) score -= 4;
        else if (b.value === a.value) score -= 1.2;
        else if (Date.parse(b.value) - Date.parse(a.value) < 5 * 86_400_000) score -= 1;
        // Hardly anybody waits for half a year.
        if (Date.parse(b.value) - Date.parse(a.value) > long) score -= 3;
        if (b.value === counted(a.value)) score += 2.5;
        else if (parsed) score -= 0.5;
      } else {
        if (parsed) score += 0.5;
        // A day of the next months is hardly anything but the one to pay on: so it was in every document that was learned from.
        if (later(a.value)) score -= 2;
      }
      if (score > best.score) best = { score, issued: a, due: b };
    }
  const mark = (r: Ranked) => dates[r.best]?.mark ?? null,
    text = (r: Ranked) => r.value!;
  const issueDate = best.issued && best.issued.value !== null ? said('issueDate', issued, best.issued, mark, of.date, text) : null;
  const fromTerms = issueDate && counted(issueDate.value);
  const proof = fromTerms ? `${terms!.value} from ${issueDate.value}` : null;
  if (best.due && best.due.value !== null) {
    const printed = said('dueDate', due, best.due, mark, of.date, text);
    return {
      issueDate,
      dueDate: printed.value === fromTerms ? { ...printed, confidence: Math.max(printed.confidence, 0.98), proof } : printed,
    };
  }
  if (!fromTerms || kind === 'credit-note') return { issueDate, dueDate: null };
  const confidence = Math.min(0.95, issueDate.confidence, terms!.confidence + 0.1);
  return { issueDate, dueDate: { value: fromTerms, mark: terms!.mark, confidence, proof } };
}

/** The fullest form in which a firm's name is printed: the legal name in the foot rather than the word in the logo, as sure as both. */
function fullest(chosen: Ranked, list: readonly Ranked[], features: readonly Features[], buyer: Ranked | undefined): Ranked {
  const has = (r: Ranked, ...names: string[]) => names.some((name) => features[r.best]!.has(name));
  if (has(chosen, 'legal form') || chosen.value!.length < 5) return chosen;
  const longer = list.filter(
    (r) =>
      r !== chosen &&
      r !== buyer &&
      ` ${r.value} `.includes(` ${chosen.value} `) &&
      !has(r, 'ours', 'web') &&
      r.value!.length <= chosen.value!.length + 35,
  );
  // Without a legal form only what begins like it, and stands where a firm names itself in full.
  const fuller =
    longer.find((r) => has(r, 'legal form')) ??
    longer.find(
      (r) =>
        r.value!.startsWith(`${chosen.value} `) &&
        !has(r, 'digits', 'like an address') &&
        has(r, 'each word capital', 'tax number beside', 'account beside', 'address beside') &&
        has(r, 'tax number beside', 'account beside', 'account near', 'address beside', 'y11', 'y10'),
    );
  return fuller ? { ...fuller, share: fuller.share + chosen.share } : chosen;
}

/** Who sends it and to whom: two, and not the same one. */
function namesOf({ names, of }: Evidence): Pick<Head, 'supplierName' | 'buyerName'> {
  const values = names.map((n) => n.plain);
  const senders = ranked(modelOf('supplierName'), of.name, values),
    buyers = ranked(modelOf('buyerName'), of.name, values);
  let best: { share: number; sender: Ranked | undefined; buyer: Ranked | undefined } = { share: -1, sender: senders[0], buyer: undefined };
  for (const a of senders.slice(0, 5))
    for (const b of buyers.slice(0, 5))
      if (!a.value!.includes(b.value!) && !b.value!.includes(a.value!) && a.share * b.share > best.share)
        best = { share: a.share * b.share, sender: a, buyer: b };
  if (best.sender) best.sender = fullest(best.sender, senders, of.name, best.buyer);
  const mark = (r: Ranked) => names[r.best]!.mark,
    text = (r: Ranked) => names[r.best]!.text;
  return {
    supplierName: best.sender ? said('supplierName', senders, best.sender, mark, of.name, text) : null,
    buyerName: best.buyer ? said('buyerName', buyers, best.buyer, mark, of.name, text) : null,
  };
}
