import { cellPath, type CodingField } from '../bills/index.ts';
import { formatRanges, inRanges } from '../ranges/index.ts';
import type { Check, CheckedLine, CodingFacts, Found } from './types.ts';

const names: Partial<Record<CodingField, string>> = { accountId: 'account', costCentreId: 'cost centre', taxCodeId: 'tax code' };
/** A name within a sentence: "Project" → "project"; "EU fund" stays. */
export const inSentence = (name: string): string => (/^\p{Lu}(?!\p{Lu})/u.test(name) ? name[0]!.toLowerCase() + name.slice(1) : name);
/** What a field is called within a sentence. */
const fieldName = (field: CodingField, dimensions: CodingFacts['dimensions']): string =>
  names[field] ?? inSentence(dimensions.find((d) => d.field === field)?.name ?? 'dimension');
const a = (name: string): string => `${/^[aeiou]/i.test(name) ? 'an' : 'a'} ${name}`;

const eachPriced = (lines: readonly CheckedLine[], found: (line: CheckedLine, row: string) => Found[]): Found[] =>
  lines.flatMap((line, i) => (line.kind === 'text' ? [] : found(line, `Row ${i + 1}`)));

const common = { scope: 'lines', severity: 'stops', adjustable: false, settledBy: [] } as const;

/** The company's own dimensions, and what it lets go together. */
export const combinationChecks: Check[] = [
  {
    ...common,
    code: 'dimension-missing',
    needs: ['dimensions', 'needsDimensions'],
    what: 'Rows have the dimensions that their account needs',
    run: (bill, { dimensions, needsDimensions }) =>
      eachPriced(bill.lines, (line, row) => {
        const needed = line.accountId === null ? [] : (needsDimensions.get(line.accountId) ?? []);
        return dimensions.flatMap(({ field, name, always }) => {
          if (line[field] !== null || !(always || needed.includes(field))) return [];
          const what = a(inSentence(name));
          return [{ path: cellPath(line.id, field), sentence: `${row} needs ${what}.`, many: `need ${what}` }];
        });
      }),
  },
  {
    ...common,
    code: 'dimension-closed',
    needs: ['dimensions', 'closed'],
    what: 'Values of dimensions are in use',
    run: (bill, { dimensions, closed }) =>
      eachPriced(bill.lines, (line, row) =>
        dimensions.flatMap(({ field, name }) => {
          const id = line[field];
          if (id === null || !closed.has(id)) return [];
          const why = `${a(inSentence(name))} that is closed on the bill’s day. Choose another`;
          return [{ path: cellPath(line.id, field), sentence: `${row} has ${why}.`, many: `have ${why}` }];
        }),
      ),
  },
  {
    ...common,
    code: 'combination-barred',
    needs: ['combinations', 'codes', 'dimensions'],
    what: 'Accounts, cost centres, tax codes and dimensions go together',
    run: (bill, { combinations, codes, dimensions }) =>
      eachPriced(bill.lines, (line, row) =>
        combinations.flatMap(({ whenField, when, onlyField, only }) => {
          const code = (field: CodingField) => (line[field] === null ? undefined : codes.get(line[field]));
          const [has, other] = [code(whenField), code(onlyField)];
          if (has === undefined || other === undefined || !inRanges(when, has) || inRanges(only, other)) return [];
          const [one, two] = [fieldName(whenField, dimensions), fieldName(onlyField, dimensions)];
          const rule = `Where the ${one} is ${formatRanges(when)}, the ${two} must be ${formatRanges(only)}`;
          return [
            {
              path: cellPath(line.id, onlyField),
              key: `${whenField} ${formatRanges(when)} ${formatRanges(only)}`,
              sentence: `${row} has ${two} ${other}. ${rule}.`,
              many: `have ${a(two)} that does not go with the ${one}. ${rule}`,
            },
          ];
        }),
      ),
  },
];
