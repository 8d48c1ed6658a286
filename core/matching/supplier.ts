import { squash } from '../reading/identifiers.ts';
import type { Reading } from '../reading/types.ts';

export interface KnownSupplier {
  id: string;
  name: string;
  taxId: string | null;
  iban: string | null;
  email: string | null;
  /** Its other tax numbers, its other bank accounts, and the mail addresses of its contacts. */
  otherTaxIds?: readonly string[];
  ibans?: readonly string[];
  emails?: readonly string[];
}
const taxIdsOf = (s: KnownSupplier): string[] => [...(s.taxId ? [s.taxId] : []), ...(s.otherTaxIds ?? [])];
const ibansOf = (s: KnownSupplier): string[] => [...(s.iban ? [s.iban] : []), ...(s.ibans ?? [])];
const emailsOf = (s: KnownSupplier): string[] => [...(s.email ? [s.email] : []), ...(s.emails ?? [])];
/** What a document shows of its sender. */
export interface Traces {
  name: string | null;
  taxId: string | null;
  iban: string | null;
  emails: string[];
}

/** The traces of its sender that a reading has. */
export const tracesOf = ({ header, supplierEmails }: Reading): Traces => ({
  name: header.supplierName?.value ?? null,
  taxId: header.supplierTaxId?.value ?? null,
  iban: header.supplierIban?.value ?? null,
  emails: supplierEmails,
});

export interface SupplierMatch {
  id: string;
  /** One sentence for the clerk. */ reason: string;
  sure: boolean;
}

const legal = /\b(ltd|limited|plc|llp|llc|inc|corp|gmbh|ag|bv|nv|sarl|sas|sa|srl|spa|ab|kk|co)\b/g;
/** A name without its legal form, accents and punctuation. */
export const plainName = (name: string): string =>
  name
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/[.']/g, '')
    .replace(/&/g, ' and ')
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .replace(legal, '')
    .replace(/\s+/g, ' ')
    .trim();
/** A tax number without its country's letters, as it is compared. */
export const bareTaxId = (taxId: string): string => squash(taxId).replace(/^[A-Z]{2}(?=\d{8})/, '');

/** Mail domains that many firms share say nothing about the sender. */
const shared = new Set(['mail.example', 'post.example', 'inbox.example']);

/**
 * Finds the sender in the master list: by tax number, IBAN, mail domain, then name. The first three are sure only when exactly one
 * supplier has them and none of the others points elsewhere. The reason names every trace that agrees.
 */
export function matchSupplier(traces: Traces, known: KnownSupplier[]): SupplierMatch | null {
  const only = (list: KnownSupplier[]): KnownSupplier | null => (list.length === 1 ? list[0]! : null);
  const byTax = traces.taxId ? only(known.filter((s) => taxIdsOf(s).some((id) => bareTaxId(id) === bareTaxId(traces.taxId!)))) : null;
  const byIban = traces.iban ? only(known.filter((s) => ibansOf(s).some((iban) => squash(iban) === squash(traces.iban!)))) : null;
  const domains = traces.emails.map((e) => e.split('@')[1] ?? '').filter((d) => d && !shared.has(d));
  const byMail =
    domains
      .map((domain) => only(known.filter((s) => emailsOf(s).some((email) => email.toLowerCase().endsWith(`@${domain}`)))))
      .find(Boolean) ?? null;
  const name = traces.name ? plainName(traces.name) : '';
  const named = (s: KnownSupplier) => plainName(s.name) === name;
  const found = byTax ?? byIban ?? byMail;
  if (found) {
    const reasons = [
      byTax?.id === found.id && `Tax number ${traces.taxId}`,
      byIban?.id === found.id && (byTax ? 'IBAN' : `IBAN ${traces.iban}`),
      byMail?.id === found.id && `mail address at ${domains[0]}`,
      name !== '' && named(found) && 'name',
    ].filter((r): r is string => typeof r === 'string');
    const elsewhere = [byTax, byIban].find((s) => s && s.id !== found.id);
    return {
      id: found.id,
      reason: `${sentence(reasons)}${byTax || byIban ? ' on the page' : ''}${elsewhere ? `, but the IBAN is that of ${elsewhere.name}` : ''}`,
      sure: !elsewhere,
    };
  }
  if (name === '') return null;
  const exact = only(known.filter(named));
  if (exact) return { id: exact.id, reason: 'Name on the page', sure: true };
  const close = known.filter((s) => name.length > 5 && (plainName(s.name).startsWith(name) || name.startsWith(plainName(s.name))));
  const near = only(close);
  return near ? { id: near.id, reason: 'Name on the page, nearly the same', sure: false } : null;
}

/** "A, b and c", with a capital at the front. */
function sentence(parts: string[]): string {
  const text = parts.length > 1 ? `${parts.slice(0, -1).join(', ')} and ${parts.at(-1)}` : (parts[0] ?? '');
  return text.charAt(0).toUpperCase() + text.slice(1);
}

export interface KnownCompany {
  id: string;
  name: string;
  taxId: string | null;
}

/** The company a document is addressed to, by the buyer's name on the page; null when none fits. */
export function matchCompany(buyer: string | null, known: KnownCompany[]): KnownCompany | null {
  if (!buyer) return null;
  const name = plainName(buyer);
  // A company may be known by several names.
  const only = (some: KnownCompany[]) => (new Set(some.map((c) => c.id)).size === 1 ? some[0]! : null);
  const found = only(known.filter((c) => plainName(c.name) === name));
  if (found) return found;
  const near = known.filter((c) => name.length > 8 && (name.startsWith(plainName(c.name)) || plainName(c.name).startsWith(name)));
  return only(near);
}
