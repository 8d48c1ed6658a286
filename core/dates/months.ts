/** Languages in whose month names dates are read; of two that use one name otherwise the first counts ("listopad"). */
const languages = [
  'en',
  'de',
  'fr',
  'nl',
  'es',
  'it',
  'sv',
  'da',
  'nb',
  'pt',
  'pl',
  'fi',
  'cs',
  'sk',
  'hu',
  'ro',
  'sl',
  'et',
  'lv',
  'lt',
  'is',
  'ca',
  'tr',
  'el',
];

/** Short forms that are printed and that no list of a language has. */
const further: Record<number, string> = {
  1: 'janv',
  2: 'fevr fev',
  3: 'mrt mrz maerz',
  4: 'avr',
  7: 'juil',
  9: 'sept sep',
  10: 'okt oct',
  12: 'dic dec',
};

/** Without accents, in lower case: as names are compared. */
export const plainMonth = (text: string): string => text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase().replace(/ł/g, 'l');

/** Names of the months by themselves and in a date, in full and short: pairs of number and name. */
function namesIn(language: string): [month: number, name: string][] {
  const formats = (['long', 'short'] as const).flatMap((month) =>
    [{ month }, { day: 'numeric', month } as const].map((options) => new Intl.DateTimeFormat(language, { ...options, timeZone: 'UTC' })),
  );
  return Array.from({ length: 12 }, (_, i) => i + 1).flatMap((month) =>
    formats.flatMap((format) =>
      format
        .formatToParts(Date.UTC(2026, month - 1, 10))
        .flatMap((part): [number, string][] => (part.type === 'month' ? [[month, plainMonth(part.value).replace(/\.$/, '')]] : [])),
    ),
  );
}

let names: Map<string, number> | null = null;

/** The month (1 to 12) that a name or its short form means, whatever its accents and case. The names are gathered at first use. */
export function monthNamed(name: string): number | undefined {
  if (!names) {
    names = new Map();
    for (const language of languages)
      for (const [month, own] of namesIn(language)) if (/^\p{L}{3,}$/u.test(own) && !names.has(own)) names.set(own, month);
    for (const [month, more] of Object.entries(further)) for (const own of more.split(' ')) names.set(own, Number(month));
  }
  return names.get(plainMonth(name));
}

/** Short forms that are words of other things too: "3 set 26", "10 out 25". Beside a year of two digits they say nothing. */
const wordsToo: ReadonlySet<string> = new Set(
  'set out ago pro may mai maj mar mars lis lip sty lut sie cze kwi gru ene des dub led elo loka'.split(' '),
);
/** Whether a month's name says nothing beside a year of two digits. */
export const isWordToo = (name: string): boolean => wordsToo.has(plainMonth(name));
