import { and, asc, eq, or } from 'drizzle-orm';
import { Nothing, SaveView, type ViewRow } from '@ledgerline/contract';
import { command, type Caller, type Params } from '../commands/command.ts';
import type { Executor } from '../db/client.ts';
import { person, savedView } from '../db/schema/index.ts';
import { notFound, Refusal } from '../http/problems.ts';

/** A person's own views and those that are shared in the company, by name. */
export async function viewsFor(db: Executor, companyId: string, personId: string): Promise<ViewRow[]> {
  const rows = await db
    .select({ view: savedView, by: person.name })
    .from(savedView)
    .innerJoin(person, eq(person.id, savedView.personId))
    .where(and(eq(savedView.companyId, companyId), or(eq(savedView.personId, personId), eq(savedView.shared, true))))
    .orderBy(asc(savedView.name), asc(savedView.id))
    .limit(200);
  return rows.map(({ view: v, by }) => ({
    id: v.id,
    name: v.name,
    shared: v.shared,
    own: v.personId === personId,
    by,
    q: v.q,
    sort: v.sort as ViewRow['sort'],
    order: v.order as ViewRow['order'],
    columns: v.columns as ViewRow['columns'],
  }));
}

const most = 50;
const columns = ({ name, shared, q, sort, order, columns: shown }: SaveView) => ({
  name: name.trim(),
  shared,
  q,
  sort,
  order,
  columns: shown,
});

/** The view of the caller; somebody else's can be looked at only. */
async function ownView(tx: Executor, caller: Caller, params: Params) {
  const [one] = await tx
    .select()
    .from(savedView)
    .where(and(eq(savedView.id, params['id']!), eq(savedView.companyId, caller.company.id)))
    .for('update');
  if (!one || (!one.shared && one.personId !== caller.me.id)) throw notFound('This view');
  if (one.personId !== caller.me.id) throw new Refusal(403, 'Only whoever made this view can change it. Save it under a name of your own.');
  return one;
}

export const newView = command({ body: SaveView, may: 'bills:see' }, async (tx, caller, input, hand) => {
  const mine = await tx
    .select({ id: savedView.id })
    .from(savedView)
    .where(and(eq(savedView.companyId, caller.company.id), eq(savedView.personId, caller.me.id)));
  if (mine.length >= most) throw new Refusal(422, `You have ${most} views already. Remove one first.`);
  const [made] = await tx
    .insert(savedView)
    .values({ companyId: caller.company.id, personId: caller.me.id, ...columns(input), at: hand.now })
    .returning({ id: savedView.id });
  return { id: made!.id };
});

export const changeView = command({ body: SaveView, may: 'bills:see', subject: ownView }, async (tx, _, input, hand) => {
  await tx.update(savedView).set(columns(input)).where(eq(savedView.id, hand.subject.id));
  return {};
});

export const removeView = command({ body: Nothing, may: 'bills:see', subject: ownView }, async (tx, _caller, _input, hand) => {
  await tx.delete(savedView).where(eq(savedView.id, hand.subject.id));
  return {};
});
