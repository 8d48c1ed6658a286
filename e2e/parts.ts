/** The journeys in two parts that take about as long, each with a Ledgerline of its own, so that both run at once. */
export const parts: readonly (readonly string[])[] = [
  ['charges', 'coding', 'empty', 'exceptions', 'imports', 'line', 'long', 'matching', 'orders', 'rules', 'shapes', 'suppliers', 'tax'],
  ['access', 'desk', 'dimensions', 'master', 'paper', 'rates', 'together', 'you'],
];

/** The part that is asked for; null: all journeys, one after another. */
export const partOf = (asked: string | undefined): number | null => (asked === undefined ? null : Number(asked));

const first = { web: 4390, mail: 4391, 'empty web': 4392, 'empty mail': 4393 };
/** Where a Ledgerline of the journeys listens: each part has its own ports. */
export const portOf = (what: keyof typeof first): number => first[what] + 10 * (partOf(process.env['PART']) ?? 0);
