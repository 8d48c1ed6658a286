import type { World } from './world.ts';

/** Acts on a world's bills and items by number, as a test of sequences picks them; what is not possible now does nothing. */
export function setBills(world: World) {
  const pick = async (pick: number, text: string) => {
    const rows = await world.rows(text);
    return rows.length ? rows[pick % rows.length] : null;
  };
  const stage = (id: string, to: string) => world.rows('update bill set stage = $2 where id = $1', id, to);
  return {
    async post({ amount, credit, euro, due }: { amount: number; credit: boolean; euro: boolean; due: number | null }) {
      await world.build.bill({
        stage: 'posted',
        lines: [{ amount: (amount / 100).toFixed(2) }],
        ...(credit ? { kind: 'credit-note' } : {}),
        ...(euro ? { currency: 'EUR' } : {}),
        dueDate: due === null ? null : `2026-12-${String(due).padStart(2, '0')}`,
      });
    },
    async settle(at: number, part: number) {
      const pair = await pick(
        at,
        `select o.id as owed, b.id as back, o.company_id, least(o.amount - o.settled, -(b.amount - b.settled)) as most from open_item o
         join open_item b on b.supplier_id = o.supplier_id and b.currency = o.currency where o.amount > o.settled and b.amount < b.settled order by o.id, b.id`,
      );
      const amount = pair ? (Math.floor(Number(pair.most) * part * 100) / 100).toFixed(2) : '0';
      if (Number(amount) > 0)
        await world.rows(
          'insert into settlement (id, company_id, owed_item_id, back_item_id, amount) values (gen_random_uuid(), $1, $2, $3, $4)',
          pair!.company_id,
          pair!.owed,
          pair!.back,
          amount,
        );
    },
    async undo(at: number) {
      const one = await pick(at, 'select id from settlement where undone_at is null order by id');
      if (one) await world.rows('update settlement set undone_at = now() where id = $1', one.id);
    },
    async make(known: boolean) {
      await world.build.bill(known ? {} : { supplier: null });
    },
    async discard(at: number) {
      const one = await pick(at, `select id from bill where stage = 'read' order by id`);
      if (one) await stage(one.id, 'discarded');
    },
    async restore(at: number) {
      const one = await pick(at, `select id from bill where stage = 'discarded' order by id`);
      if (one) await stage(one.id, 'read');
    },
  };
}
