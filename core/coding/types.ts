import type { Coding, CodingField } from '../bills/index.ts';

export type { Coding, CodingField };

/** What a line says that its coding may follow from. */
export interface LineSaid {
  supplierId: string | null;
  /** The supplier's item code. */ code: string | null;
  description: string;
  /** Decimal, without currency. */ amount: string | null;
  /** The bill's day, ISO 8601. */ day: string | null;
}
/** A posted line as it was coded. */
export interface Coded extends Coding {
  supplierId: string | null;
  /** The bill's day, ISO 8601. */ day: string;
}
/** What was posted in a context, the latest first. */
export interface History {
  of(context: string): readonly Coded[];
}
