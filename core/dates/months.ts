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

/** Month names and their short forms, lower case without accents, and the month each means. */
export const months: ReadonlyMap<string, number> = (() => {
  const found = new Map<string, number>();
  for (const language of languages)
    for (const [month, name] of namesIn(language)) if (/^\p{L}{3,}$/u.test(name) && !found.has(name)) found.set(name, month);
  for (const [month, names] of Object.entries(further)) for (const name of names.split(' ')) found.set(name, Number(month));
  return found;
})();

/** Short forms that are words of other things too: "3 set 26", "10 out 25". Beside a year of two digits they say nothing. */
export const wordsToo: ReadonlySet<string> = new Set(
  'set out ago pro may mai maj mar mars lis lip sty lut sie cze kwi gru ene des dub led elo loka'.split(' '),
);
