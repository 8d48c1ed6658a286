import { asc, eq, sql } from 'drizzle-orm';
import { PutDistribution, type DistributionRow } from '@ledgerline/contract';
import { dec } from '@ledgerline/core/money';
import { rowIn } from './row.ts';
import { command } from '../commands/command.ts';
import type { Executor } from '../db/client.ts';
import { col } from '../db/column.ts';
import { costCentre, distributionKey, distributionPart } from '../db/schema/index.ts';
import { difference } from '../events/record.ts';
import { Refusal } from '../http/problems.ts';

/** The company's distribution keys by name, with their parts in order. */
export async function listDistributions(db: Executor, companyId: string): Promise<DistributionRow[]> {
  const keys = await db.select().from(distributionKey).where(eq(distributionKey.companyId, companyId)).orderBy(asc(distributionKey.name));
  const parts = await db
    .select({
      keyId: distributionPart.keyId,
      costCentreId: distributionPart.costCentreId,
      costCentre: sql<string>`${col(costCentre.code)} || ' ' || ${col(costCentre.name)}`,
      weight: distributionPart.weight,
    })
    .from(distributionPart)
    .innerJoin(costCentre, eq(costCentre.id, distributionPart.costCentreId))
    .where(eq(distributionPart.companyId, companyId))
    .orderBy(asc(distributionPart.position));
  return keys.map(({ id, name, active }) => ({
    id,
    name,
    active,
    parts: parts.filter((p) => p.keyId === id).map(({ keyId: _, ...part }) => part),
  }));
}

const keyIn = rowIn(distributionKey, 'This distribution key');
/** What a key says, as the event log keeps it: codes, not ids. */
const said = ({ name, active, parts }: DistributionRow) => ({
  name,
  active,
  parts: parts.map((p) => `${p.costCentre.split(' ')[0]} ${dec(p.weight).toFixed()}`).join(', '),
});

const keyOf = async (tx: Executor, companyId: string, id: string): Promise<DistributionRow> =>
  (await listDistributions(tx, companyId)).find((k) => k.id === id)!;

async function keepParts(tx: Executor, companyId: string, keyId: string, parts: PutDistribution['parts']): Promise<void> {
  if (new Set(parts.map((p) => p.costCentreId)).size < parts.length)
    throw new Refusal(422, 'A cost centre stands in it twice.', [{ path: 'parts', sentence: 'Each cost centre once.' }]);
  if (parts.some((p) => dec(p.weight).lte(0)))
    throw new Refusal(422, 'Each share is above zero.', [{ path: 'parts', sentence: 'Each share is above zero.' }]);
  await tx.delete(distributionPart).where(eq(distributionPart.keyId, keyId));
  await tx
    .insert(distributionPart)
    .values(parts.map(({ costCentreId, weight }, position) => ({ keyId, companyId, position, costCentreId, weight })));
}

export const newDistribution = command({ body: PutDistribution, may: 'settings:edit' }, async (tx, caller, input, hand) => {
  const companyId = caller.company.id,
    name = input.name.trim();
  const [made] = await tx.insert(distributionKey).values({ companyId, name, active: input.active }).returning({ id: distributionKey.id });
  await keepParts(tx, companyId, made!.id, input.parts);
  hand.record({ subject: { type: 'distribution-key', id: made!.id }, verb: 'made', after: said(await keyOf(tx, companyId, made!.id)) });
  return { id: made!.id };
});

/** What was shared out by it before stays as it is. */
export const changeDistribution = command({ body: PutDistribution, may: 'settings:edit', subject: keyIn }, async (tx, _, input, hand) => {
  const { id, companyId } = hand.subject,
    name = input.name.trim();
  const before = await keyOf(tx, companyId, id);
  await tx.update(distributionKey).set({ name, active: input.active }).where(eq(distributionKey.id, id));
  await keepParts(tx, companyId, id, input.parts);
  const changed = difference(said(before), said(await keyOf(tx, companyId, id)));
  if (changed) hand.record({ subject: { type: 'distribution-key', id }, verb: 'changed', ...changed });
  return { id };
});
