export * from './shared.ts';
export * from './people.ts';
export * from './arrivals.ts';
export * from './bills.ts';
export * from './search.ts';
export * from './ledger.ts';
export * from './suppliers.ts';
export * from './today.ts';
