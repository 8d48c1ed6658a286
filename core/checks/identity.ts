import { squash } from '../reading/identifiers.ts';
import type { Check, CheckedBill, Facts } from './types.ts';

/** Something about a bill that is another than its supplier's: what it is called in short, and the whole sentence. */
interface Sign {
  code: string;
  short: string;
  sentence: string;
  /** What it says, and what it was expected to say. */ values?: { found: string; expected: string };
}

/** What of a bill is not as it is known of its supplier: who it may not be from. */
function signsOf(bill: CheckedBill, { known, sender, bank, layoutNew }: Facts): Sign[] {
  if (!known || !bill.supplierId) return [];
  const signs: Sign[] = [];
  const add = (code: string, short: string, sentence: string, values: Sign['values'] | null = null) =>
    signs.push({ code, short, sentence, ...(values ? { values } : {}) });
  const iban = bill.supplierIban ? squash(bill.supplierIban) : null;
  // Its own check says which, and how it is verified.
  if (iban && bank && bank.verified.length > 0 && !bank.verified.some((one) => squash(one) === iban))
    add('bank-differs', 'bank account', '');
  const taxId = bill.supplierTaxId ? squash(bill.supplierTaxId) : null;
  if (taxId && known.taxIds.length > 0 && !known.taxIds.some((id) => squash(id) === taxId))
    add('tax-number-differs', 'tax number', `The page says tax number ${taxId}; ${known.name} has ${known.taxIds.join(' or ')}.`, {
      found: taxId,
      expected: known.taxIds.join(' or '),
    });
  if (sender && !sender.known) add('sender-new', 'sender', `Nothing of ${known.name} came from ${sender.domain} before.`);
  if (layoutNew) add('layout-new', 'look', `The page looks unlike the last ${layoutNew} of ${known.name}.`);
  return signs;
}

/** What a bill with several signs says together, in one sentence. */
const story = (signs: readonly Sign[], name: string): string => {
  const shorts = signs.map((s) => `new ${s.short}`);
  const all = `${shorts.slice(0, -1).join(', ')} and ${shorts.at(-1)}`;
  return `${all[0]!.toUpperCase()}${all.slice(1)}: this may not be ${name}. Ask at a number that you know before anything is paid.`;
};

/**
 * A check whose finding holds payment until a second person has verified it: what was found stays found, whoever has changed what is
 * known of the supplier since, as long as the page says the same.
 */
const verified = (
  code: string,
  what: string,
  run: (
    bill: CheckedBill,
    signs: readonly Sign[],
    facts: Facts,
  ) => ({ key: string; sentence: string | null } & Pick<Sign, 'values'>) | null,
): Check => ({
  code,
  scope: 'supplier',
  needs: ['known', 'sender', 'bank', 'layoutNew', 'waiting', 'verified'],
  severity: 'asks',
  adjustable: true,
  settledBy: ['verify'],
  what,
  run(bill, facts) {
    const found = run(bill, signsOf(bill, facts), facts);
    const sentence = found && (found.sentence ?? facts.waiting.get(`${code} ${found.key}`));
    return sentence ? [{ path: 'supplierId', key: found.key, sentence, ...found.values }] : [];
  },
});

const together = 'not-as-known';
/** One sign by itself; several together are told as one story. `key`: what the page has now. */
const alone = (code: string, what: string, key: (bill: CheckedBill, facts: Facts) => string | null): Check =>
  verified(code, what, (bill, signs, facts) => {
    const own = key(bill, facts);
    const whole = `${together} ${bill.supplierId}`;
    if (own === null || !bill.supplierId || signs.length > 1 || facts.waiting.has(whole) || facts.verified.has(whole)) return null;
    const sign = signs.find((s) => s.code === code);
    return { key: `${bill.supplierId} ${own}`.trim(), sentence: sign?.sentence ?? null, ...(sign?.values ? { values: sign.values } : {}) };
  });

export const identityChecks: Check[] = [
  alone('tax-number-differs', 'The page has the supplier’s tax number', (bill) => bill.supplierTaxId && squash(bill.supplierTaxId)),
  alone('sender-new', 'It came from where the supplier’s bills come from', (_, { sender }) => sender?.domain ?? null),
  alone('layout-new', 'The page looks like the supplier’s earlier ones', () => ''),
  verified(together, 'Bank account, tax number, sender and look are not new together', (bill, signs, { known }) =>
    known && bill.supplierId ? { key: bill.supplierId, sentence: signs.length > 1 ? story(signs, known.name) : null } : null,
  ),
];

/** Checks whose open findings hold the payment of a bill, however far it has gone. */
export const holdsPayment: readonly string[] = identityChecks.map((c) => c.code);
