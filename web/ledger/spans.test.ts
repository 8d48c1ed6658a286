import { expect, it } from 'vitest';
import { spansAt } from './spans';

const at = (today: string) => Object.fromEntries(spansAt(today).map(([label, { from, to }]) => [label, `${from} ${to}`]));

it('spans begin and end with their months, quarters and years', () =>
  expect(at('2026-11-27')).toEqual({
    'This month': '2026-11-01 2026-11-30',
    'Last month': '2026-10-01 2026-10-31',
    'This quarter': '2026-10-01 2026-12-31',
    'Last quarter': '2026-07-01 2026-09-30',
    'This year': '2026-01-01 2026-12-31',
    'Last year': '2025-01-01 2025-12-31',
  }));
it('over the turn of a year and to the end of February', () => {
  expect(at('2028-01-05')).toMatchObject({ 'Last month': '2027-12-01 2027-12-31', 'Last quarter': '2027-10-01 2027-12-31' });
  expect(at('2028-02-29')['This month']).toBe('2028-02-01 2028-02-29');
});
