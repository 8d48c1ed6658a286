import type { RepeatRow } from '@ledgerline/contract';

/** How often, in words: "every month", "every 2 weeks". */
export const rhythmSaid = ({ every, weeks }: Pick<RepeatRow, 'every' | 'weeks'>): string =>
  every !== 'weeks' ? `every ${every}` : weeks === 1 ? 'every week' : `every ${weeks} weeks`;
