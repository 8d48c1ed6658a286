import { expect, it } from 'vitest';
import fc from 'fast-check';
import { countNear } from './near.ts';

it('counts the numbers within a tolerance as looking at each of them does', () =>
  fc.assert(
    fc.property(
      fc.array(fc.integer({ min: -40, max: 40 }).map((n) => n / 4)),
      fc.integer({ min: -40, max: 40 }).map((n) => n / 4),
      fc.constantFrom(0.25, 1, 3),
      (values, value, tolerance) => {
        expect(countNear(values, tolerance)(value)).toBe(values.filter((v) => Math.abs(v - value) < tolerance).length);
      },
    ),
  ));
