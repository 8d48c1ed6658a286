import { describe, expect, it } from 'vitest';
import { madeSamples } from '../learn/samples.ts';
import { mute } from './mute.ts';

describe('a muted page', () => {
  const samples = madeSamples(8);
  it('keeps figures, names, descriptions and places; every other word is another', () => {
    for (const s of samples) {
      const pages = mute(s.pages, s.truth);
      expect(pages.map((p) => p.words.length)).toEqual(s.pages.map((p) => p.words.length));
      const kept = `${s.truth.lines.map((l) => l.description).join(' ')} ${s.truth.supplier.name} ${s.truth.buyer.name}`.toLowerCase();
      let changed = 0;
      for (const [p, page] of pages.entries())
        for (const [i, word] of page.words.entries()) {
          const was = s.pages[p]!.words[i]!;
          expect([word.x, word.y, word.w, word.text.length]).toEqual([was.x, was.y, was.w, was.text.length]);
          if (/\d/.test(was.text)) expect(word.text).toBe(was.text);
          else if (!kept.includes(was.text.toLowerCase().replace(/[^\p{L}]/gu, '')) && /\p{L}{4}/u.test(was.text) && word.text !== was.text)
            changed++;
        }
      expect(changed).toBeGreaterThan(5);
    }
  });
  it('says the same word the same way each time', () => {
    const s = samples[0]!;
    expect(mute(s.pages, s.truth)).toEqual(mute(s.pages, s.truth));
  });
});
