import { dateOrderOf } from '../../core/reading/header.ts';
import { evidenceOf, type Evidence } from '../../core/reading/head/evidence.ts';
import { referenceKey } from '../../core/reading/identifiers.ts';
import { squash } from '../../core/reading/identifiers.ts';
import { layOut } from '../../core/reading/layout.ts';
import { similarity } from './similarity.ts';
import type { Choice } from './optimise.ts';
import type { Sample } from './samples.ts';

export const roles = ['invoiceNumber', 'purchaseOrder', 'issueDate', 'dueDate', 'supplierTaxId', 'supplierName', 'buyerName'] as const;
export type Role = (typeof roles)[number];

/** One document's choice for a role, with what each candidate says. */
export interface Task {
  family: string;
  name: string;
  choice: Choice;
  values: (string | null)[];
  truth: string | null;
}

function task(sample: Sample, role: Role, evidence: Evidence): Task | null {
  const { truth, ignore, family, name } = sample;
  const base = { family, name };
  if (role === 'supplierName' || role === 'buyerName') {
    const party = role === 'supplierName' ? 'supplier' : 'buyer',
      own = truth[party]?.name;
    if (!own || ignore.includes(`${party}.name`)) return null;
    const right = evidence.names.map((n) => similarity(own, n.text) >= 0.85);
    return { ...base, truth: own, values: evidence.names.map((n) => n.plain), choice: { features: evidence.of.name, right } };
  }
  if (role === 'supplierTaxId') {
    if (ignore.includes('supplier.taxId')) return null;
    const key = truth.supplier?.taxId ? squash(truth.supplier.taxId) : null;
    const values = [...evidence.references.map((r) => squash(r.key)), null];
    return { ...base, truth: key, values, choice: { features: evidence.of.reference, right: values.map((v) => v === key) } };
  }
  if (ignore.includes(role)) return null;
  const own = truth[role];
  if (role === 'invoiceNumber' || role === 'purchaseOrder') {
    const key = own ? referenceKey(own) : null;
    const values = [...evidence.references.map((r) => r.key), null];
    return { ...base, truth: key, values, choice: { features: evidence.of.reference, right: values.map((v) => v === key) } };
  }
  const values = [...evidence.days, null];
  // A day that is not printed follows from the terms.
  const printed = own !== null && evidence.days.includes(own) ? own : null;
  return { ...base, truth: own, values, choice: { features: evidence.of.date, right: values.map((v) => v === printed) } };
}

/** What there is to learn from samples, by role. Names are learned with our companies known and unknown. */
export function tasksOf(samples: readonly Sample[]): Record<Role, Task[]> {
  const all = Object.fromEntries(roles.map((role) => [role, [] as Task[]])) as Record<Role, Task[]>;
  for (const sample of samples) {
    if (sample.truth.kind === 'other') continue;
    const layout = layOut(sample.pages),
      order = dateOrderOf(layout);
    const known = evidenceOf(layout, order, { companies: sample.companies });
    const blind = sample.companies.length > 0 ? evidenceOf(layout, order) : null;
    for (const role of roles) {
      const one = task(sample, role, known);
      if (one) all[role].push(one);
      const other = blind && /Name$/.test(role) ? task(sample, role, blind) : null;
      if (other) all[role].push(other);
    }
  }
  return all;
}
