import type { Page } from '../page/index.ts';
import { findEmails, findIbans, findTaxIds, headOf, squash, sumsClose } from '../reading/index.ts';

interface Traits {
  numbering: { page: number; of: number } | null;
  number: string | null;
  ids: Set<string>;
  emails: Set<string>;
  titled: boolean;
  total: boolean;
  summed: boolean;
}

const numbering =
  /(?<!\p{L})(?:page|pag|pagina|página|seite|sida|sid|blad|blz|bladzijde|p)\.?\s*:?\s*(\d{1,3})\s*(?:of|van|von|de|di|av|sur|\/)\s*(\d{1,3})(?!\d)/iu;

function traitsOf(page: Page): Traits {
  const text = page.words.map((w) => w.text).join(' ');
  const found = numbering.exec(text);
  return {
    numbering: found ? { page: Number(found[1]), of: Number(found[2]) } : null,
    ...headOf(page),
    emails: new Set(findEmails(text)),
    ids: new Set([...findIbans(text).map((f) => f.iban), ...findTaxIds(text.toUpperCase()).map((f) => f.taxId)]),
  };
}

const apart = (a: Set<string>, b: Set<string>): boolean => a.size > 0 && b.size > 0 && ![...a].some((x) => b.has(x));

interface Open {
  pages: Page[];
  number: string | null;
  ids: Set<string>;
  emails: Set<string>;
  last: Traits;
}

/** How much speaks for a page being the first of another document than the pages before it. */
function startsAnew(page: Traits, document: Open): number {
  let score = 0;
  if (page.numbering) score += page.numbering.page === 1 ? 3 : -4;
  if (page.number && document.number) score += squash(page.number) === squash(document.number) ? -4 : 2;
  if (apart(page.ids, document.ids)) score += 2;
  if (apart(page.emails, document.emails)) score += 1;
  if (page.titled) score += 1;
  // A page with a total to pay and no number is a letter that asks for money; one with title and number is not its second page.
  if (page.titled && page.number && !document.number && document.last.total) score += 1.5;
  if (document.last.numbering && document.last.numbering.page === document.last.numbering.of) score += 0.5;
  return score;
}

/** From here on a page begins another document. */
const anew = 2.5;

/**
 * Whether a page begins another document than the pages before it. Where its own signs leave it open, figures tell: those before it
 * close by themselves and so do its own. The last page of several has a total of them all.
 */
function begins(traits: Traits, page: Page, document: Open): boolean {
  const score = startsAnew(traits, document);
  if (score >= anew || score < 0) return score >= anew;
  // A quick look first: where no sum was printed before this page there is nothing that could be closed.
  return traits.summed && document.last.summed && sumsClose([page]) && sumsClose(document.pages);
}

/** Parts the pages of a file into documents, in order; most files give one. Pages keep their numbers. */
export function takeApart(pages: Page[]): Page[][] {
  if (pages.length <= 1) return pages.length ? [pages] : [];
  const documents: Open[] = [];
  for (const page of pages) {
    const traits = traitsOf(page);
    const current = documents[documents.length - 1];
    if (!current || begins(traits, page, current))
      documents.push({ pages: [page], number: traits.number, ids: new Set(traits.ids), emails: new Set(traits.emails), last: traits });
    else {
      current.pages.push(page);
      current.number ??= traits.number;
      for (const id of traits.ids) current.ids.add(id);
      for (const email of traits.emails) current.emails.add(email);
      current.last = traits;
    }
  }
  return documents.map((d) => d.pages);
}

/** The pages of one document as a document of its own: numbered from 1. */
export const renumber = (pages: Page[]): Page[] => pages.map((page, i) => ({ ...page, number: i + 1 }));
