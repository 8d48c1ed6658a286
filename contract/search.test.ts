import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { parseSearch } from './search.ts';

describe('a search in words', () => {
  it('reads filters and leaves the rest as text', () =>
    expect(parseSearch('supplier:quill-haven over:1,500 due:this-week stage:read,returned glass')).toMatchObject({
      supplier: 'quill haven',
      over: '1500',
      due: 'this-week',
      stage: ['read', 'returned'],
      text: ['glass'],
    }));
  it('takes an amount that is none as text', () => expect(parseSearch('over:lots')).toMatchObject({ over: null, text: ['over:lots'] }));
  it('never throws', () =>
    fc.assert(
      fc.property(fc.string({ maxLength: 60 }), (typed) => {
        parseSearch(typed);
      }),
    ));
});
