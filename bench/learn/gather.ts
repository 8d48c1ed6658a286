import { madeSamples, samplesOf, strangeSamples, type Sample } from './samples.ts';

/** Which documents to learn from. */
export interface Wanted {
  folders: string[];
  families: string[] | null;
  made: number;
  strange: number;
  /** Into how many parts families are dealt, each left out in turn. */ folds: number;
}

export const gather = async ({ folders, families, made, strange }: Wanted): Promise<Sample[]> => [
  ...(await samplesOf(folders, families ?? undefined)),
  ...madeSamples(made),
  ...strangeSamples(strange),
];

/** The part that a family is dealt to: by its name alone, so that it stays there when others are added (FNV-1a). */
export function foldOf(family: string, folds: number): number {
  let h = 0x811c9dc5;
  for (const c of family) h = Math.imul(h ^ c.charCodeAt(0), 0x01000193);
  return ((h ^ (h >>> 13)) >>> 0) % folds;
}
