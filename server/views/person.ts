import { eq } from 'drizzle-orm';
import type { PersonView } from '@ledgerline/contract';
import type { Db, Executor } from '../db/client.ts';
import { personView } from '../db/schema/index.ts';

/** How a person looks at things, by place. */
export async function personViews(db: Executor, personId: string): Promise<PersonView> {
  const rows = await db.select().from(personView).where(eq(personView.personId, personId));
  return Object.fromEntries(rows.map((r) => [r.place, r.view])) as PersonView;
}

/** Keeps how a person looks at the places given; the others stay. */
export async function keepPersonViews(db: Db, personId: string, given: PersonView): Promise<void> {
  for (const place of ['desk', 'bills'] as const) {
    const view = given[place];
    if (view)
      await db
        .insert(personView)
        .values({ personId, place, view })
        .onConflictDoUpdate({ target: [personView.personId, personView.place], set: { view } });
  }
}
