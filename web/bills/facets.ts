/** The search with a facet's words put in, in place of others of the same kind, or taken out where they are in. */
export function withFacet(q: string, words: string): string {
  const tidy = (text: string) => text.replace(/\s+/g, ' ').trim();
  if (q.split(/\s+/).includes(words)) return tidy(q.replace(words, ''));
  const [kind] = words.split(':');
  return tidy(`${q.replace(new RegExp(`(^|\\s)${kind}:\\S+`, 'g'), '')} ${words}`);
}
