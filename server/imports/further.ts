import type { FurtherList } from '@ledgerline/contract';
import { listDistributions } from '../accounts/distributions.ts';
import { listChecks } from '../checks/service.ts';
import { listRules } from '../coding/rules.ts';
import type { Executor } from '../db/client.ts';
import { listCombinations } from '../dimensions/combinations.ts';
import { listDimensions } from '../dimensions/store.ts';
import { listEvents } from '../events/store.ts';
import { listPeople } from '../people/store.ts';
import { allRows } from './saved.ts';
import type { Sheet } from './sheet.ts';

const yesNo = (of: boolean): string => (of ? 'yes' : 'no');
const fieldNames: Record<string, string> = { accountId: 'Account', costCentreId: 'Cost centre', taxCodeId: 'Tax code' };
const atOnce = 1000;

type Table = (db: Executor, companyId: string) => Promise<Sheet>;

/** Lists that are saved as files and made by hand alone, each as heads and rows of text. */
export const furtherTables: Record<FurtherList, Table> = {
  async people(db, companyId) {
    const { people } = await listPeople(db, companyId);
    return {
      heads: ['Name', 'Title', 'Mail address', 'Roles', 'Accounts', 'Cost centres', 'Approves up to'],
      rows: people.map(({ name, title, email, roles, range }) => [
        name,
        title ?? '',
        email,
        roles.join(', '),
        range.accounts ?? '',
        range.costCentres ?? '',
        range.most ?? '',
      ]),
    };
  },
  async distributions(db, companyId) {
    const keys = await listDistributions(db, companyId);
    return {
      heads: ['Name', 'Cost centre', 'Share', 'Open'],
      rows: keys.flatMap(({ name, active, parts }) => parts.map((p) => [name, p.costCentre, p.weight, yesNo(active)])),
    };
  },
  async combinations(db, companyId) {
    const names = new Map((await listDimensions(db, companyId)).map((d) => [d.field as string, d.name]));
    const called = (field: string) => fieldNames[field] ?? names.get(field) ?? field;
    return {
      heads: ['Where the', 'is', 'the', 'must be', 'Holds'],
      rows: (await listCombinations(db, companyId)).map((c) => [
        called(c.whenField),
        c.whenCodes,
        called(c.onlyField),
        c.onlyCodes,
        yesNo(c.active),
      ]),
    };
  },
  async 'coding-rules'(db, companyId) {
    return {
      heads: ['Lines of', 'that say', 'are coded with', 'Made by', 'Holds'],
      rows: (await listRules(db, companyId)).map((r) => [
        r.supplier ?? '',
        r.words ?? '',
        r.shown.map((s) => `${s.code} ${s.name}`).join(', '),
        r.madeBy,
        yesNo(r.active),
      ]),
    };
  },
  async checks(db, companyId) {
    const { checks } = await listChecks(db, companyId);
    return { heads: ['Check', 'Stops or asks', 'Open now'], rows: checks.map((c) => [c.what, c.severity, String(c.open)]) };
  },
  async events(db, companyId) {
    const rows = await allRows(async (before: number | null) => {
      const found = await listEvents(db, companyId, { limit: atOnce, ...(before === null ? {} : { before }) });
      return { rows: found, next: found.length === atOnce ? found[found.length - 1]!.seq : null };
    });
    return {
      heads: ['Number', 'At', 'Who', 'From', 'Of what', 'What', 'Note', 'Before and after'],
      rows: rows.map((e) => [
        String(e.seq),
        e.at,
        e.person ?? 'Ledgerline',
        e.source,
        e.subject,
        e.verb,
        e.note ?? '',
        e.changes.map((c) => `${c.field}: ${c.before ?? '—'} → ${c.after ?? '—'}`).join('; '),
      ]),
    };
  },
};
