export * from './people.ts';
export * from './accounts.ts';
export * from './suppliers.ts';
export * from './arrivals.ts';
export * from './bills.ts';
export * from './ledger.ts';
export * from './events.ts';
