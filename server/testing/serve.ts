import { serve } from '@hono/node-server';
import { makeApi } from '../app.ts';
import { Opener } from '../arrivals/opener.ts';
import { SheetPool } from '../imports/pool.ts';
import { connect } from '../db/client.ts';
import { doorOf } from '../http/door.ts';
import { Live } from '../live/live.ts';
import { ReadingPool } from '../reading/pool.ts';

// A server of its own on the database given in DATABASE_URL, to be killed by a test; prints its port.
const database = connect(process.env['DATABASE_URL']!);
const nothing = async () => undefined;
const api = makeApi({
  database,
  reader: new ReadingPool(1),
  live: new Live(),
  door: doorOf(),
  opener: new Opener(),
  sheets: new SheetPool(),
  queue: { opening: nothing, reading: nothing, scanning: nothing, importing: nothing },
  now: () => new Date(),
});
serve({ fetch: api.app.fetch, port: 0, hostname: '127.0.0.1' }, ({ port }) => console.log(`port ${port}`));
