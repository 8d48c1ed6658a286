import { dayInWords } from '../dates/index.ts';
import type { Ranked } from './rank.ts';

/** Why a value is suggested, in one sentence: "11 of 12 lines like this from this supplier; last 4 Nov 2026". */
export function whyOf({ because }: Ranked): string {
  const { kind, said, times, of, last, others } = because();
  const what: Record<typeof kind, string> = {
    company: 'lines of this company',
    words: `lines with “${said}” from ${others ? 'other suppliers' : 'any supplier'}`,
    supplier: 'lines from this supplier',
    season: 'lines from this supplier at this time of year',
    size: 'lines of about this amount from this supplier',
    'supplier words': `lines with “${said}” from this supplier`,
    description: 'lines like this from this supplier',
    'description and size': 'lines like this, of about this amount, from this supplier',
    code: `lines with item code ${said} from this supplier`,
  };
  return `${times} of ${of} ${what[kind]}; last ${dayInWords(last)}`;
}
