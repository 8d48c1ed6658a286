import { and, eq, sql } from 'drizzle-orm';
import { checkOf, checks } from '@ledgerline/core/checks';
import { SetCheck, type CheckList } from '@ledgerline/contract';
import { recheckBills, settingsOf } from '../bills/checking.ts';
import { command } from '../commands/command.ts';
import type { Executor } from '../db/client.ts';
import { difference } from '../events/record.ts';
import { billException, checkSetting } from '../db/schema/index.ts';
import { notFound, Refusal } from '../http/problems.ts';
import { overrulersOf } from './overrule.ts';

/** The checks as a company has set them, each with how often it is open now. */
export async function listChecks(db: Executor, companyId: string): Promise<CheckList> {
  const settings = await settingsOf(db, companyId),
    by = await overrulersOf(db, companyId);
  const counts = await db
    .select({ code: billException.code, n: sql<number>`count(*)::int` })
    .from(billException)
    .where(and(eq(billException.companyId, companyId), eq(billException.state, 'open')))
    .groupBy(billException.code);
  const open = new Map(counts.map((c) => [c.code, c.n]));
  return {
    checks: checks.map((c) => ({
      code: c.code,
      what: c.what,
      scope: c.scope,
      severity: c.adjustable ? (settings.get(c.code) ?? c.severity) : c.severity,
      usual: c.severity,
      adjustable: c.adjustable,
      overruledBy: c.settledBy.includes('overrule') ? by(c.code) : null,
      open: open.get(c.code) ?? 0,
    })),
  };
}

/** A check stops, asks or is off in the caller's company, and who may overrule it; bills under review are checked again at once. */
export const setCheck = command(
  {
    body: SetCheck,
    may: 'settings:edit',
    async subject(_, __, params) {
      const check = checkOf(params['code']!);
      if (!check) throw notFound('This check');
      return check;
    },
  },
  async (tx, caller, { severity, overruledBy }, hand) => {
    const check = hand.subject,
      companyId = caller.company.id;
    if (severity && !check.adjustable) throw new Refusal(422, 'Posting needs this check. It cannot be changed.');
    if (overruledBy && !check.settledBy.includes('overrule')) throw new Refusal(422, 'What this check finds is not overruled by anybody.');
    const before = {
      severity: (await settingsOf(tx, companyId)).get(check.code) ?? check.severity,
      overruledBy: (await overrulersOf(tx, companyId))(check.code),
    };
    const changed = difference(before, { ...before, ...(severity ? { severity } : {}), ...(overruledBy ? { overruledBy } : {}) });
    if (!changed) return {};
    await tx
      .insert(checkSetting)
      .values({ companyId, code: check.code, ...changed.after })
      .onConflictDoUpdate({ target: [checkSetting.companyId, checkSetting.code], set: changed.after });
    hand.record({ subject: { type: 'check', id: null }, verb: 'changed', note: check.code, ...changed });
    if (severity && severity !== before.severity) await recheckBills(tx, caller.company, 'all', { personId: caller.me.id, now: hand.now });
    return {};
  },
);
