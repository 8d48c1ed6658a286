import type { World } from './world.ts';

/** A table that takes nothing until it is mended: how a failure of ours is made on purpose. */
export function retryable(world: World, table: string) {
  return {
    async break() {
      await world.rows(
        `create function nothing_is_kept() returns trigger language plpgsql as $$ begin raise exception 'on purpose'; end $$`,
      );
      await world.rows(`create trigger nothing_is_kept before insert on ${table} for each row execute function nothing_is_kept()`);
    },
    async mend() {
      await world.rows(`drop trigger nothing_is_kept on ${table}`);
      await world.rows('drop function nothing_is_kept');
    },
  };
}
