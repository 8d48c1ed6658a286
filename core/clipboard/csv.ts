/** A cell of a CSV file (RFC 4180). Words that a spreadsheet would take for a formula are kept words. */
function cell(text: string): string {
  const safe = /^[=+\-@\t\r]/.test(text) && !/^-?\d+(\.\d+)?$/.test(text) ? `'${text}` : text;
  return /[",\r\n]/.test(safe) ? `"${safe.replaceAll('"', '""')}"` : safe;
}

/** Rows of text as a CSV file. */
export const formatCsv = (rows: readonly (readonly string[])[]): string => rows.map((row) => row.map(cell).join(',')).join('\r\n') + '\r\n';
