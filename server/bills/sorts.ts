import { sql, type SQL } from 'drizzle-orm';
import type { BillsQuery } from '@ledgerline/contract';
import { col } from '../db/column.ts';
import { bill } from '../db/schema/index.ts';
import type { decodeCursor } from '../http/cursor.ts';

export type BillSort = NonNullable<BillsQuery['sort']>;

/** One way to sort bills; the id of a bill tells apart what is alike. */
interface Sort {
  /** The expression, as its index has it. */ by: SQL;
  /** Its type in the database. */ type: SQL;
  /** What a cursor of it looks like. */ shape: Parameters<typeof decodeCursor>[1];
  /** Names stand in a table of their own, and bills come in their order from there. */ names?: Names;
}
/** A name of a bill that another table has. */
interface Names {
  from: SQL;
  /** Which row of it names a bill `b`. */ of: SQL;
  /** Bills that none of its rows names, and their own name. */ without: SQL;
  own: SQL;
}

const at = (type: string, column: SQL, where: string) => ({ by: sql`coalesce(${column}, ${sql.raw(`'${where}'`)})`, type: sql.raw(type) });

const supplierNames: Names = {
  from: sql`supplier n`,
  of: sql`b.supplier_id = n.id`,
  without: sql`b.supplier_id is null`,
  own: sql`lower(coalesce(b.supplier_name, ''))`,
};
const personNames: Names = {
  from: sql`person n`,
  of: sql`b.assignee_id = n.id`,
  without: sql`b.assignee_id is null`,
  own: sql`''::text`,
};
const text = sql.raw('text');

/** What lists of bills are sorted by: every column that they can show. */
export const sorts: Record<BillSort, Sort> = {
  arrived: { by: col(bill.createdAt), type: sql.raw('timestamptz'), shape: 'moment' },
  due: { ...at('date', col(bill.dueDate), '9999-12-31'), shape: 'day' },
  dated: { ...at('date', col(bill.issueDate), '0001-01-01'), shape: 'day' },
  discount: { ...at('date', col(bill.discountUntil), '9999-12-31'), shape: 'day' },
  aside: { ...at('date', col(bill.asideUntil), '9999-12-31'), shape: 'day' },
  number: { ...at('text', col(bill.invoiceNumber), ''), shape: 'text' },
  stage: { by: col(bill.stage), type: text, shape: 'text' },
  total: { by: sql`coalesce(${col(bill.gross)}, 0)`, type: sql.raw('numeric'), shape: 'number' },
  // Entries are numbered as they are posted.
  entry: { ...at('timestamptz', col(bill.postedAt), '1990-01-01 00:00:00+00'), shape: 'moment' },
  supplier: {
    by: sql`coalesce((select lower(n.name) from supplier n where n.id = ${col(bill.supplierId)}), lower(${col(bill.supplierName)}), '')`,
    type: text,
    shape: 'text',
    names: supplierNames,
  },
  hands: {
    by: sql`coalesce((select lower(n.name) from person n where n.id = ${col(bill.assigneeId)}), '')`,
    type: text,
    shape: 'text',
    names: personNames,
  },
};

/** The first bills of a company in the order of names, from the table of the names, so that not all bills are looked at. */
export function inOrderOfNames(
  companyId: string,
  { from, of, without, own }: Names,
  way: 'asc' | 'desc',
  beyond: readonly [key: string, id: string] | null,
): (most: number) => SQL {
  const dir = sql.raw(way),
    than = sql.raw(way === 'desc' ? '<' : '>');
  const after = (key: SQL) => (beyond ? sql`and (${key}, b.id) ${than} (${beyond[0]}::text, ${beyond[1]}::uuid)` : sql``);
  // A name before the last row's has nothing beyond it.
  const named = beyond ? sql`where lower(n.name) ${than}= ${beyond[0]}::text` : sql``;
  return (most) => sql`(select b.* from (
    (select lower(n.name) as name, b.* from ${from} cross join lateral
      (select * from bill b where b.company_id = ${companyId}::uuid and ${of} ${after(sql`lower(n.name)`)}) b
      ${named} order by lower(n.name) ${dir}, b.id ${dir} limit ${most})
    union all
    (select ${own} as name, b.* from bill b where b.company_id = ${companyId}::uuid and ${without} ${after(own)}
      order by ${own} ${dir}, b.id ${dir} limit ${most})
  ) b order by b.name ${dir}, b.id ${dir} limit ${most})`;
}
