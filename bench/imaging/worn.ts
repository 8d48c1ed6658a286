import { paperFile, wornPage, type Wear } from '@ledgerline/documents/paper';
import { make, type Made } from '../reading/draw.ts';

export const kinds = ['scan', 'fax', 'photo'] as const;
export type Kind = (typeof kinds)[number];

/** What paper of each kind goes through, varied by seed: resolution, skew, grain, holes, how it was put in. */
export function wearOf(kind: Kind, seed: number): Wear {
  const skew = (((seed * 37) % 41) / 41 - 0.5) * 4,
    grain = 8 + ((seed * 13) % 30);
  if (kind === 'fax') return { seed, dpi: 200, skew: skew * 0.7, grain: 10, fax: true };
  if (kind === 'photo') return { seed, dpi: 220, skew: 0, grain, photo: true };
  return { seed, dpi: [150, 200, 300][seed % 3]!, skew, grain, holes: seed % 4 === 0, turn: ([0, 0, 0, 90, 180] as const)[seed % 5]! };
}

/** A made-up document of the reading bench on paper, as a file a scanner, fax or phone gives; only the first `most` pages of it. */
export async function wornDocument(seed: number, kind: Kind, most = 2): Promise<{ made: Made; file: Uint8Array; pages: number }> {
  const made = make(seed),
    pdf = await made.sheet.pdf(),
    wear = wearOf(kind, seed);
  const count = Math.min(most, made.sheet.pages().length);
  const pages = [];
  for (let i = 1; i <= count; i++) pages.push(await wornPage(pdf, i, { ...wear, seed: seed + i }));
  return {
    made,
    file: await paperFile(pages, kind === 'fax' ? 'fax' : kind === 'photo' && count === 1 ? 'jpeg' : 'tiff', wear.dpi),
    pages: count,
  };
}
