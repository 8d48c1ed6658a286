import { readTerms } from './instalments.ts';

/** Terms that a company names itself: "Monthly account" is `30 eom`. */
export interface ListedTerms {
  code: string;
  name: string;
  /** What suppliers write for it; several with commas between. */
  alsoCalled: string | null;
  /** As the trade writes them. */
  terms: string;
}

const plain = (text: string) => text.normalize('NFKC').toLowerCase().replace(/[\s.]+/g, ' ').trim(); // prettier-ignore
const words = ({ code, name, alsoCalled }: ListedTerms) => [code, name, ...(alsoCalled ?? '').split(',')].map(plain).filter(Boolean);

/** What the company's list says of a text that names one of its terms, whole; the text itself where it names none. */
export function termsMeant(text: string, list: readonly ListedTerms[]): string {
  const asked = plain(text);
  return list.find((one) => words(one).includes(asked))?.terms ?? text;
}

/** Whether terms are understood, by themselves or by the company's list. */
export const termsKnown = (text: string, list: readonly ListedTerms[]): boolean => readTerms(termsMeant(text, list)) !== null;
