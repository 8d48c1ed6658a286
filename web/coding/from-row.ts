/** So many words of a row tell what it is. */
const most = 4;

/** What a rule made of a row says first: the words that it begins with, up to the first figure or pause. */
export function wordsFrom(description: string): string {
  const [first = ''] = description.split(/[\n,;:(–—]|\s-\s/);
  const words: string[] = [];
  for (const word of first.trim().split(/\s+/)) {
    if (/\d/.test(word) || words.length === most) break;
    words.push(word);
  }
  return words.join(' ') || first.trim().slice(0, 60);
}
