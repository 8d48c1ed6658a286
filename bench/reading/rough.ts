import { seeded } from '@ledgerline/documents/random';
import { chance } from './content.ts';
import { make, type Made } from './draw.ts';
import type { Drawn } from './sheet.ts';

const strange = ['Kennziffer', 'Docket', 'Sigle', 'Merkmal', 'Tally', 'Rubrik', 'Codex', 'Posten'];

/** A misprint of one letter. */
function misprint(text: string, at: number): string {
  const letters = [...text];
  letters[at % letters.length] = 'x';
  return letters.join('');
}

/**
 * A made document as it should not be: labels misprinted or in words that nobody knows, pieces shifted, stamps and notes with
 * dates and figures on it, words lost, a wrong figure. What it truly says stays what was drawn. For measuring how far a reader's
 * confidence can be trusted.
 */
export function rough(seed: number): Made {
  const made = make(seed),
    r = seeded(seed * 104729 + 7);
  const labels = new Set(Object.values(made.look.labels).flatMap((l) => [l, l.toUpperCase()]));
  const isLabel = (d: Drawn): boolean => labels.has(d.text.replace(/ ?:$/, ''));
  const drawn = made.sheet.drawn;
  const strength = r.pick([0.05, 0.12, 0.25]);
  const jitter = chance(r, 0.4) ? 1.2 : 0.3;
  for (const d of drawn) {
    if (isLabel(d) && chance(r, strength))
      d.text = chance(r, 0.5) ? misprint(d.text, r.int(0, 20)) : `${r.pick(strange)}${d.text.endsWith(':') ? ':' : ''}`;
    d.x += (r.next() - 0.5) * jitter;
    d.y += (r.next() - 0.5) * jitter;
  }
  if (chance(r, 0.5)) {
    const size = made.look.size,
      page = 1;
    const notes = [
      `Received ${r.int(1, 28)}/${r.int(10, 12)}/2026`,
      `Checked ${r.int(1000, 9999)}`,
      `${r.int(10, 900)}.${r.int(10, 99)}`,
      `No. ${r.int(10000, 99999)}`,
      `PO ${r.int(1000, 9999)}?`,
    ];
    for (let i = 0; i < 2; i++)
      drawn.push({
        page,
        text: r.pick(notes),
        x: made.sheet.width * (0.3 + r.next() * 0.4),
        y: made.sheet.height * (0.05 + r.next() * 0.9),
        size,
        bold: false,
        white: false,
      });
  }
  const lost = drawn.filter((d) => isLabel(d) && chance(r, strength / 4));
  for (const d of lost) drawn.splice(drawn.indexOf(d), 1);
  return made;
}
