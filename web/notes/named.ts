export interface Named {
  id: string;
  name: string;
}

/** The word behind an @ that is being typed at the cursor, and where it begins; null where none is. */
export function beingNamed(text: string, cursor: number): { at: number; letters: string } | null {
  const before = text.slice(0, cursor);
  const at = before.lastIndexOf('@');
  if (at < 0 || (at > 0 && !/\s/.test(before[at - 1]!))) return null;
  const letters = before.slice(at + 1);
  return /^[\p{L}' -]{0,30}$/u.test(letters) && letters.split(' ').length <= 2 ? { at, letters } : null;
}

/** People whose name has the letters at the beginning of one of its words. */
export const fitting = <P extends Named>(people: readonly P[], letters: string): P[] =>
  people.filter((p) => ` ${p.name.toLowerCase()}`.includes(` ${letters.toLowerCase().trimStart()}`));

/** The people that a text names with @ and their whole name. */
export const namedIn = <P extends Named>(text: string, people: readonly P[]): P[] => people.filter((p) => text.includes(`@${p.name}`));
