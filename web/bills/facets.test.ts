import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { parseSearch } from '@ledgerline/contract';
import { withFacet } from './facets';

describe('a facet', () => {
  it('writes its words into the search, and takes them out again', () => {
    expect(withFacet('glass', 'stage:coded')).toBe('glass stage:coded');
    expect(withFacet('glass stage:coded', 'stage:coded')).toBe('glass');
  });
  it('takes the place of another of its kind', () =>
    expect(withFacet('due:late glass stage:coded', 'due:this-week')).toBe('glass stage:coded due:this-week'));
  it('pressed twice leaves what the search says', () =>
    fc.assert(
      fc.property(fc.array(fc.constantFrom('glass', 'over:500', 'supplier:moss'), { maxLength: 4 }), (words) => {
        const q = words.join(' ');
        expect(withFacet(withFacet(q, 'due:late'), 'due:late')).toBe(q);
        expect(parseSearch(withFacet(q, 'due:late')).due).toBe('late');
      }),
    ));
});
