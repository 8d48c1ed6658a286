import type { Coding, CodingField, DimensionField, LineKind, Operation, Parting } from '../bills/index.ts';
import type { Range } from '../ranges/index.ts';
import type { Compared } from '../matching/index.ts';
import type { TaxRule } from '../tax/index.ts';

export interface CheckedLine extends Coding {
  id: string;
  kind: LineKind;
  description: string;
  quantity: string | null;
  unitPrice: string | null;
  priceQuantity: string;
  discountPercent: string | null;
  amount: string | null;
}
export interface CheckedBill {
  kind: 'invoice' | 'credit-note';
  supplierId: string | null;
  /** The supplier's name as the page has it. */
  supplierName: string | null;
  /** Tax number and IBAN as the page has them. */
  supplierTaxId: string | null;
  supplierIban: string | null;
  invoiceNumber: string | null;
  issueDate: string | null;
  dueDate: string | null;
  terms: string | null;
  purchaseOrder: string | null;
  currency: string;
  net: string | null;
  tax: string | null;
  gross: string | null;
  pricesIncludeTax: boolean;
  lines: CheckedLine[];
  /** Paths that the reader is not sure of. */
  unsure: string[];
}

/** One of the company's own dimensions. `always`: every line has one. */
export interface Dimension {
  field: DimensionField;
  name: string;
  always: boolean;
}
/** Where one field's code is in `when`, the other's has to be in `only`. What is empty is not its business. */
export interface Combination {
  whenField: CodingField;
  when: readonly Range[];
  onlyField: CodingField;
  only: readonly Range[];
}
/** What is to know of what lines are coded with. */
export interface CodingFacts {
  /** Accounts that need a cost centre. */
  needsCostCentre: ReadonlySet<string>;
  /** Accounts, cost centres, tax codes and values of dimensions that take no lines of a bill of this day. */
  closed: ReadonlySet<string>;
  /** Accounts of assets among them. */
  assetAccounts: ReadonlySet<string>;
  /** Accounts that only gather the ones under them. */
  gathering: ReadonlySet<string>;
  dimensions: readonly Dimension[];
  /** The dimensions that lines on an account need, by account. */
  needsDimensions: ReadonlyMap<string, readonly DimensionField[]>;
  combinations: readonly Combination[];
  /** The codes of all that the lines name, by id. */
  codes: ReadonlyMap<string, string>;
}

/** What is usual with a supplier. */
export interface SupplierKnown {
  name: string;
  currency: string;
  /** Its tax numbers, without spaces. */ taxIds: readonly string[];
  /** The totals of its last bills in this bill's currency; null for fewer than six. */ habit: {
    bills: number;
    least: string;
    most: string;
    /** Each, the oldest first. */ totals: readonly string[];
  } | null;
  /** The numbers of its last bills, the latest first. */ numbers: readonly string[];
  /** What one of the same thing cost last, by row of this bill. */ lastPrices: ReadonlyMap<string, { price: string; on: string }>;
}

/** What a check may need to know beside the bill; gathered once, for all checks. */
export interface Facts extends CodingFacts {
  baseCurrency: string;
  taxRules: ReadonlyMap<string, TaxRule>;
  /** How far the tax may be from its rates beyond rounding, in the bill's currency; null for no farther. */
  taxTolerance: string | null;
  /** Another live bill with the same supplier and number, as people call it. */
  duplicate: string | null;
  /** The day of the check. */
  today: string;
  /** The chosen supplier as it is known, and its bills before this one; null without one. */
  known: SupplierKnown | null;
  /** The domain of the mail that the bill came by, and whether anything of this supplier came from it before; null where it came otherwise. */
  sender: { domain: string; known: boolean } | null;
  /** Another live bill of the supplier with the same total and a number alike; `how` in a few words. */
  alike: { id: string; number: string; issueDate: string | null; how: string } | null;
  /** One of the same total, day and number (or one alike) under another supplier, or in another company (without its id). */
  elsewhere: { id: string | null; company: string | null; supplier: string; number: string } | null;
  /** Another live bill whose paper this one's page is another scan or print of, in this company or (without its id) in another. */
  samePaper: { id: string | null; company: string | null; number: string | null; day: string | null } | null;
  /** Of how many earlier pages of its supplier its page looks unlike each; null where it looks like one, or there are too few. */
  layoutNew: number | null;
  /** What a second person has to verify, as it was found: sentences by check and key. */
  waiting: ReadonlyMap<string, string>;
  /** What a second person has verified, by check and key. */
  verified: ReadonlySet<string>;
  /** There is an exchange rate for the bill's currency and date. */
  hasRate: boolean;
  /** What the bill bills of orders. */
  orders: {
    /** A number on the page that is of no order with its supplier; `of`: whose it is, `maybe`: the open order that all rows are of. */
    unknown: { number: string; of: string | null; maybe: string | null } | null;
    /** Orders that no bill is expected of any more. */ closed: readonly string[];
    otherCurrency: { order: string; currency: string } | null;
    compared: readonly Compared[];
    /** Rows that are in none of its orders, where others are. */ beside: readonly string[];
  };
  /** The month of the invoice date, where nothing is posted in it any more. */
  closedMonth: string | null;
  /** Accounts of its rows that it takes over what may be spent in its year; `centre`: by a cost centre alone. */
  overBudget: readonly { row: string; account: string; centre: string | null; year: number; planned: string; over: string }[];
  /** Rows that charge days that another bill of the supplier charged for the same. */
  chargedTwice: readonly { row: string; from: string; to: string; other: { id: string; number: string; from: string; to: string } }[];
  /** A bill that repeats and has come already, though this one is like it. */
  turnTaken: { name: string; day: string; id: string; number: string | null } | null;
  /** Of rows that are shared over goods: why they cannot be, and what is wrong with where some of the goods are. */
  charges: ReadonlyMap<string, { trouble: string | null; places: readonly { goods: string; stops: string }[] }>;
  /** Another of our companies, to which the page is addressed. */
  addressedTo: string | null;
  /** The chosen supplier's bank accounts: those that count, and those that wait for a second person. */
  bank: { supplier: string; verified: string[]; waiting: string[] } | null;
  /** Rows bought into stock that name one of the company's items that are kept there. */
  stockRows: ReadonlySet<string>;
  /** Why bills of the chosen supplier do not go on; null where they do. */
  blocked: { supplier: string; because: string } | null;
  /** Another supplier with this one's tax number, or with its bank account. */
  sameTaxId: string | null;
  sameIban: string | null;
  /** What an e-invoice's data and its page say differently; `path` is the bill's field, null where the bill has none. */
  differences: { field: string; path: string; data: string; page: string; sentence: string; choosable: boolean }[];
  /** Rules that an e-invoice's data breaks. */
  /** The document that it waits for: until which day, and whether that has passed. */
  awaits: { by: string; missed: boolean } | null;
  broken: { rule: string; path: string; sentence: string }[];
}

/** stops: the bill is not sent on while it is open; asks: it is shown and can be settled, and keeps nothing back. */
export type Severity = 'stops' | 'asks';
/** What a company may make of a check. */
export type Setting = Severity | 'off';
/**
 * How an exception ends other than by a change of the bill or the master data: choose (the e-invoice's data or its page), confirm
 * (somebody looked and it is right), overrule (a named person, with a reason), verify (a second person asked
 * the supplier, and says whom and how; until then payment is held).
 */
export type Settling = 'choose' | 'confirm' | 'overrule' | 'verify';

/** One of two truths to choose from, and the value that it stands for. */
export interface Choice {
  take: 'data' | 'page';
  label: string;
  value: string;
}
/** A change of the bill that would settle a finding: rows parted by their tax, or operations as they are. */
export type Change = ({ kind: 'tax-parts'; label: string } & Parting) | { kind: 'operations'; label: string; operations: Operation[] };
/** One thing that a check found. `key` tells this finding from another at the same path: what settled the one does not settle the other. */
export interface Found {
  path: string;
  sentence: string;
  /** What is said of several rows of which it is so: “need a project”. */ many?: string;
  key?: string;
  choices?: Choice[];
  changes?: Change[];
  /** Another bill that it is about. */ other?: string | null;
  /** Amounts that it is compared with, the oldest first. */ earlier?: readonly string[];
  /** What the bill says, and what it was expected to say, as people write it. */ found?: string | null;
  expected?: string | null;
}
export interface Check {
  code: string;
  scope: 'header' | 'lines' | 'sums' | 'supplier' | 'orders' | 'document';
  needs: readonly (keyof Facts)[];
  /** Off: a company switches it on. */
  severity: Setting;
  /** Whether companies may change its severity; false where posting itself needs it. */
  adjustable: boolean;
  settledBy: readonly Settling[];
  /** What it looks for, for the settings. */
  what: string;
  run(bill: CheckedBill, facts: Facts): Found[];
}

/** Something to settle, as the checks see it now. */
export interface Exception {
  code: string;
  path: string;
  key: string;
  sentence: string;
  /** What is said of several rows of which it is so; null for what is found once. */ many: string | null;
  severity: Severity;
  settledBy: readonly Settling[];
  choices: Choice[];
  changes: Change[];
  other: string | null;
  earlier: string[];
  /** What the bill says, and what it was expected to say; null where there is no one value. */
  found: string | null;
  expected: string | null;
}
