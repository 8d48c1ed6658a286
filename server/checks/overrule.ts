import { eq } from 'drizzle-orm';
import { checkOf, mayOverrule, type Overrulers, type Settling } from '@ledgerline/core/checks';
import { may } from '@ledgerline/contract';
import type { Caller } from '../commands/command.ts';
import type { Executor } from '../db/client.ts';
import { checkSetting } from '../db/schema/index.ts';
import { Refusal } from '../http/problems.ts';

/** Who may overrule what each check finds, by its code; controllers where the company has said nothing. */
export async function overrulersOf(db: Executor, companyId: string): Promise<(code: string) => Overrulers> {
  const rows = await db.select().from(checkSetting).where(eq(checkSetting.companyId, companyId));
  const set = new Map(rows.map((r) => [r.code, r.overruledBy as Overrulers | null]));
  return (code) => set.get(code) ?? 'controllers';
}

/** Refuses a caller whom the company does not let overrule what a check finds. */
export async function lettingOverrule(db: Executor, caller: Caller, code: string): Promise<void> {
  const by = (await overrulersOf(db, caller.company.id))(code);
  if (by === 'nobody') throw new Refusal(403, `${caller.company.name} lets nobody overrule this. Change the bill instead.`);
  if (!mayOverrule(caller.company.roles, by)) throw new Refusal(403, `In ${caller.company.name} this is overruled by ${by} alone.`);
}

/** What settles a check's findings, for somebody with these roles. */
export const settledFor = (code: string, roles: readonly string[], by: Overrulers): Settling[] =>
  (checkOf(code)?.settledBy ?? []).filter((how) =>
    how === 'overrule' ? mayOverrule(roles, by) : how !== 'verify' || may(roles, 'suppliers:verify'),
  );
