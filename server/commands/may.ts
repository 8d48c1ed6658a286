import { may as roleMay, type Permission } from '@ledgerline/contract';
import type { Caller } from './command.ts';
import { Refusal } from '../http/problems.ts';

/** A bill in hand, as far as it matters for who may do what with it. */
export interface BillInHand {
  sentBy: string | null;
  /** Everybody who changed it, settled something on it or sent it on. */
  workedOn: ReadonlySet<string>;
}
/** Bank details in hand. */
export interface BankInHand {
  proposedBy: string | null;
}
/** What the subject in hand adds to a role: a sentence where the caller may not. */
interface SubjectRules {
  'bills:approve': BillInHand;
  'suppliers:verify': BankInHand;
}
const rules: { [A in keyof SubjectRules]: (caller: Caller, subject: SubjectRules[A]) => string | null } = {
  'bills:approve': (caller, bill) =>
    bill.sentBy === caller.me.id
      ? 'You sent this bill on yourself. Somebody else has to approve it.'
      : bill.workedOn.has(caller.me.id)
        ? 'You worked on this bill yourself. Somebody else has to approve it.'
        : null,
  'suppliers:verify': (caller, account) =>
    account.proposedBy === caller.me.id ? 'You entered these bank details yourself. A second person has to verify them.' : null,
};

/** Refuses a caller whose role does not allow the action in this company. */
export function mayAtAll(caller: Caller, action: Permission): void {
  if (!roleMay(caller.company.roles, action)) throw new Refusal(403, `Your role in ${caller.company.name} does not allow this.`);
}

/** Refuses a caller who may not do this with the subject in hand, whatever their role. */
export function mayWith<A extends keyof SubjectRules>(caller: Caller, action: A, subject: SubjectRules[A]): void {
  const no = rules[action](caller, subject);
  if (no) throw new Refusal(403, no);
}
