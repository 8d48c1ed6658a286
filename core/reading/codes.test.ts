import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { codesAlike } from './codes.ts';
import { sketchLine } from './sketch.ts';

const line = (code: string | null) => sketchLine('1.00', { code });
const codes = (...list: (string | null)[]) => codesAlike(list.map(line)).map((l) => l.code?.value ?? null);

describe('codes read from ink', () => {
  it('are put right where a letter stands in the place of a digit, or the other way', () => {
    expect(codes('N05', 'NOS', 'W12', 'T40', 'WO2')).toEqual(['N05', 'N05', 'W12', 'T40', 'W02']);
    expect(codes('LP-7867', '2S-8385', 'FP-6784', 'AA-3241')).toEqual(['LP-7867', 'ZS-8385', 'FP-6784', 'AA-3241']);
  });
  it('say what was read at first and are not sure', () => {
    const { code } = codesAlike(['N05', 'W12', 'T40', 'NOS'].map(line))[3]!;
    expect([code!.repaired, code!.confidence < 0.9]).toEqual(['read NOS, N05 is built like the others', true]);
  });
  it('stay where the others are of several shapes, longer, or too few', () => {
    expect(codes('N05', 'NOS', 'W12')).toEqual(['N05', 'NOS', 'W12']);
    expect(codes('N05', 'W12', 'T40', 'NOSE', null)).toEqual(['N05', 'W12', 'T40', 'NOSE', null]);
    expect(codes('N05', 'W12', 'T40', 'NXT')).toEqual(['N05', 'W12', 'T40', 'NXT']);
  });
  it('of one shape are never touched', () => {
    fc.assert(
      fc.property(fc.array(fc.stringMatching(/^[A-Z]{2}-\d{3}$/), { maxLength: 12 }), (all) => {
        expect(codes(...all)).toEqual(all);
      }),
    );
  });
});
