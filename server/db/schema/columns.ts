import { customType, date, timestamp, uuid } from 'drizzle-orm/pg-core';
import { v7 } from 'uuid';

/** Time-ordered ids (UUID version 7). */
export const id = () =>
  uuid('id')
    .primaryKey()
    .$defaultFn(() => v7());
export const day = (name: string) => date(name, { mode: 'string' });
export const moment = (name: string) => timestamp(name, { withTimezone: true, mode: 'date' });
export const bytes = customType<{ data: Buffer; driverData: Buffer }>({ dataType: () => 'bytea' });
