import { expect, it } from 'vitest';
import { openPdf } from './open.ts';
import { makePdf } from '@ledgerline/documents/maker';
import { invoiceOf } from '../testing/world.ts';

it('opening a PDF leaves the engine’s own functions in place', async () => {
  const pdf = await openPdf(await makePdf(invoiceOf(1, { number: 'N-1', lines: 1 })));
  await pdf.getPage(1);
  await pdf.destroy();
  // What scripts define has a prototype of its own, even where it says that it is native.
  for (const own of [Array.prototype.push, JSON.parse]) expect(Object.hasOwn(own, 'prototype')).toBe(false);
});
