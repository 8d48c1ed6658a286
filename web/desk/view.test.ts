import fc from 'fast-check';
import { expect, it } from 'vitest';
import { leastShare, usualView, viewFrom } from './view';

it('a kept view comes back as it was', () => {
  fc.assert(
    fc.property(
      fc.constantFrom('left' as const, 'right' as const, 'above' as const),
      fc.double({ min: leastShare, max: 1 - leastShare, noNaN: true }),
      fc.double({ min: 0.5, max: 4, noNaN: true }),
      (side, share, zoom) => {
        const view = { side, share, zoom, widths: { amount: 90.5 }, hidden: ['unit' as const], shown: ['taxRate' as const] };
        expect(viewFrom(JSON.parse(JSON.stringify(view)))).toEqual(view);
      },
    ),
  );
});
it('whatever else is kept there gives a view that can be used', () => {
  fc.assert(
    fc.property(fc.oneof(fc.jsonValue(), fc.string(), fc.constant(null)), (kept) => {
      const view = viewFrom(kept);
      expect(['left', 'right', 'above']).toContain(view.side);
      expect(view.share).toBeGreaterThanOrEqual(leastShare);
      expect(view.share).toBeLessThanOrEqual(1 - leastShare);
      expect(view.zoom).toBeGreaterThanOrEqual(0.5);
    }),
  );
  expect(viewFrom({ side: 'below', share: 'wide', widths: { amount: 'wide', other: 5 }, hidden: ['accountId', 'amount'] })).toEqual(
    usualView,
  );
});
