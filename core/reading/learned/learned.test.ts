import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { buckets, Features, plainWord } from './features.ts';
import { denseShares } from './dense.ts';
import { panelOf, reasonsOf, scoreOf, scoresOf, sharesOf, unpack } from './model.ts';

const bytes = (of: Record<number, number>): string => {
  const all = new Int8Array(buckets);
  for (const [at, value] of Object.entries(of)) all[Number(at)] = value;
  return Buffer.from(all.buffer).toString('base64');
};

const at = (f: Features, name: string): number => [...f.each()].find((e) => e.name === name)!.at;

describe('what was learned', () => {
  it('weighs what is seen, in steps', () => {
    const f = new Features();
    f.add('left=number', 2);
    f.add('page 1');
    const model = unpack({ step: 0.5, bytes: bytes({ [at(f, 'left=number')]: 3, [at(f, 'page 1')]: -4 }) });
    expect(scoreOf(model, f)).toBeCloseTo(0.5 * (2 * 3 - 4));
  });
  it('adds up for models that are asked together what each hears alone, by name or at once', () => {
    const names = ['a', 'b', 'c', 'd'];
    const all = new Features();
    for (const name of names) all.add(name);
    const weigh = fc.array(fc.integer({ min: -128, max: 127 }), { minLength: 4, maxLength: 4 });
    fc.assert(
      fc.property(
        fc.array(weigh, { minLength: 1, maxLength: 5 }),
        fc.array(fc.tuple(fc.constantFrom(...names), fc.integer({ min: -3, max: 3 }))),
        (of, said) => {
          const models = of.map((w) => unpack({ step: 0.25, bytes: bytes(Object.fromEntries(w.map((v, i) => [at(all, names[i]!), v]))) }));
          const panel = panelOf(models);
          const [named, part, sums] = [new Features(), new Features(panel), new Features(panel)];
          for (const [i, [name, value]] of said.entries()) {
            named.add(name, value);
            (i % 2 ? part : sums).add(name, value);
          }
          sums.take(part);
          const alone = models.map((model) => scoreOf(model, named));
          for (const scores of [scoresOf(panel, named), scoresOf(panel, sums)])
            for (const [t, score] of alone.entries()) expect(scores[t]!).toBeCloseTo(score);
        },
      ),
    );
  });
  it('what is added up for one panel is never taken for another', () => {
    const model = unpack({ step: 1, bytes: bytes({}) });
    expect(() => new Features(panelOf([model])).take(new Features(panelOf([model, model])))).toThrow('another');
  });
  it('names what spoke most for it, and nothing that spoke against it', () => {
    const f = new Features();
    for (const name of ['a', 'b', 'c', 'd']) f.add(name);
    const model = unpack({ step: 1, bytes: bytes({ [at(f, 'a')]: 1, [at(f, 'b')]: 9, [at(f, 'c')]: -9, [at(f, 'd')]: 4 }) });
    expect(reasonsOf(model, f, 2)).toEqual(['b', 'd']);
  });
  it('words that are alike are seen alike, whatever their accents and case', () => {
    const [one, other] = [new Features(), new Features()];
    one.word('left', plainWord('Numéro:'));
    other.word('left', plainWord('NUMERO'));
    expect([...one.each()]).toEqual([...other.each()]);
    const near = new Features();
    near.word('left', 'numer');
    const of = new Set([...one.each()].map((e) => e.at));
    expect([...near.each()].filter((e) => of.has(e.at)).length).toBeGreaterThan(2);
  });
  it('shares of certainty are of one whole, in the order of the scores', () =>
    fc.assert(
      fc.property(fc.array(fc.double({ min: -400, max: 400, noNaN: true }), { minLength: 1, maxLength: 30 }), (scores) => {
        const shares = sharesOf(scores);
        expect(shares.reduce((a, b) => a + b, 0)).toBeCloseTo(1);
        for (let i = 0; i < scores.length; i++)
          for (let j = 0; j < scores.length; j++) if (scores[i]! > scores[j]!) expect(shares[i]!).toBeGreaterThanOrEqual(shares[j]!);
      }),
    ));
});

describe('a small network over numbers', () => {
  it('weighs numbers and its constants; a hidden unit says nothing below zero; shares are of one whole', () => {
    const hidden = [
      [2, 0, -1],
      [0, -1, 0],
    ];
    const shares = denseShares(
      {
        hidden,
        out: [
          [3, 5, 0.5],
          [0, 0, 0],
        ],
      },
      [1, 3],
    ).map(Math.exp);
    // The units say 2 - 1 and nothing; the first tag scores 3 × 1 + 0.5, the second 0.
    expect(shares[0]! / shares[1]!).toBeCloseTo(Math.exp(3.5));
    expect(shares[0]! + shares[1]!).toBeCloseTo(1);
  });
  it('holds for scores of any size', () =>
    expect(
      denseShares(
        {
          hidden: [[1, 0]],
          out: [
            [900, 0],
            [-900, 0],
          ],
        },
        [1],
      ).map(Math.exp),
    ).toEqual([1, 0]));
});
