import {
  AlikeRows,
  Changed,
  CodedAlike,
  CodingRuleList,
  CodingRulesQuery,
  CodingTrial,
  CodingTrialQuery,
  Learned,
  Nothing,
  UsualCoding,
} from '@ledgerline/contract';
import { alikeRows, codeAlike } from './alike.ts';
import type { Api } from '../http/define.ts';
import { forgetLines, learnedFor } from './learned.ts';
import { changeCodingRule, listRules, newCodingRule } from './rules.ts';
import { today } from '../services.ts';
import { tryRule } from './trial.ts';
import { setUsual, showUsual } from './usual.ts';

export function codingRoutes(api: Api): void {
  const { db } = api.services.database;
  api.query(
    {
      path: '/coding-rules',
      access: 'bills:see',
      summary: 'Rules on how lines are coded; those about one supplier alone, if it is named',
      query: CodingRulesQuery,
      answer: CodingRuleList,
    },
    async ({ caller, query }) => ({ rules: await listRules(db, caller.company.id, query.supplierId) }),
  );
  api.query(
    {
      path: '/coding-rules/trial',
      access: 'bills:see',
      summary: 'A rule tried on the lines posted in the last year, before it is kept',
      query: CodingTrialQuery,
      answer: CodingTrial,
    },
    async ({ caller, query, services }) => tryRule(db, caller.company.id, query, today(services)),
  );
  api.command({ method: 'post', path: '/coding-rules', summary: 'A new rule on how lines are coded', answer: Changed }, newCodingRule);
  api.command(
    { method: 'put', path: '/coding-rules/:id', summary: 'Change a rule on how lines are coded, or switch it off', answer: Changed },
    changeCodingRule,
  );
  api.query(
    { path: '/usual-coding', access: 'settings:see', summary: 'How the company codes what nothing else tells', answer: UsualCoding },
    ({ caller }) => showUsual(db, caller.company.id),
  );
  api.command(
    { method: 'put', path: '/usual-coding', summary: 'Set how the company codes what nothing else tells', answer: Nothing },
    setUsual,
  );
  api.query(
    { path: '/alike', access: 'bills:see', summary: 'Rows in hand without an account that say alike', answer: AlikeRows },
    async ({ caller }) => alikeRows(db, caller.company.id),
  );
  api.command({ method: 'post', path: '/alike', summary: 'Code rows of several bills alike', answer: CodedAlike }, codeAlike);
  api.query(
    { path: '/suppliers/:id/learned', access: 'suppliers:see', summary: 'What a supplier’s posted lines say of new ones', answer: Learned },
    async ({ caller, params }) => learnedFor(db, caller.company.id, params['id']!),
  );
  api.command(
    { method: 'post', path: '/suppliers/:id/learned/forget', summary: 'Posted lines of these words say nothing any more', answer: Changed },
    forgetLines,
  );
}
