/**
 * The cells of a block as spreadsheets put it on the clipboard: rows by line breaks, cells by tabs, a cell that holds either (or a quote)
 * in quotes with its own quotes doubled. A last line break ends the last row. Never fails: a quote without an end goes to the end.
 */
export function parseBlock(text: string): string[][] {
  const plain = text.replace(/\r\n?/g, '\n').replace(/\n$/, '');
  if (plain === '') return [];
  const rows: string[][] = [[]];
  let at = 0;
  for (;;) {
    let cell = '';
    if (plain[at] === '"') {
      for (at++; at < plain.length; at++) {
        if (plain[at] !== '"') cell += plain[at];
        else if (plain[at + 1] === '"') cell += plain[at++];
        else break;
      }
      at++;
    }
    while (at < plain.length && plain[at] !== '\t' && plain[at] !== '\n') cell += plain[at++];
    rows[rows.length - 1]!.push(cell);
    if (at >= plain.length) return rows;
    if (plain[at++] === '\n') rows.push([]);
  }
}

/** A block of cells for the clipboard; what `parseBlock` takes apart again. */
export const formatBlock = (rows: readonly (readonly string[])[]): string =>
  rows.map((row) => row.map((cell) => (/[\t\n\r"]/.test(cell) ? `"${cell.replaceAll('"', '""')}"` : cell)).join('\t')).join('\n');
