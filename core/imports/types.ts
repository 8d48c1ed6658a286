export type ImportList =
  | 'accounts'
  | 'cost-centres'
  | 'dimension-values'
  | 'tax-codes'
  | 'terms'
  | 'items'
  | 'orders'
  | 'receipts'
  | 'budgets'
  | 'suppliers'
  | 'rates';
/** What another list's row is named by in a cell: its code, a dimension's name, or a person's mail address. */
export const named = ['account', 'cost-centre', 'tax-code', 'dimension', 'dimension-value', 'person', 'supplier', 'order'] as const;
export type Named = (typeof named)[number];
export type FieldKind =
  'code' | 'text' | 'decimal' | 'day' | 'year' | 'place' | 'yes-no' | 'currency' | 'one-of' | 'terms' | 'iban' | Named;

export interface ImportField {
  key: string;
  /** As its column is called in templates and exports. */ label: string;
  /** Other names that files have for it, in lower case. */ names: readonly string[];
  kind: FieldKind;
  required?: boolean;
  /** The most letters. */ most?: number;
  /** Large and small letters say the same. */ anyCase?: boolean;
  /** Of a decimal: above zero, zero or more, or a percentage from 0 to 100. */ among?: 'positive' | 'not-negative' | 'percent';
  /** Of `one-of`. */ options?: readonly string[];
  /** What an empty cell of a yes or no means. */ otherwise?: boolean;
}
export interface ListSpec {
  list: ImportList;
  /** What one row is: "account". */ what: string;
  /** The fields that tell one row from another. */ key: readonly string[];
  /** The field that names the row's own parent in the same list. */ parent?: string;
  /** Rows that agree in a field are one thing, and have to agree in these, too: the lines of an order. */
  together?: { by: string; same: readonly string[] };
  fields: readonly ImportField[];
}

/** A cell's value: text, a plain decimal, a day (ISO 8601), yes or no. Null: empty. */
export type ImportValue = string | boolean | null;
export type ImportValues = Record<string, ImportValue>;

/** error: the row is not brought in. warning: it is, and somebody should look. */
export interface Finding {
  /** As the file counts them: the heads are row 1. */ row: number;
  /** The column's head in the file; null for the row as a whole. */ column: string | null;
  /** What stands there; null for the row as a whole. */ cell: string | null;
  severity: 'error' | 'warning';
  sentence: string;
}
/** A row that can be brought in. */
export interface GoodRow {
  row: number;
  values: ImportValues;
}
