/** Whether the database keeps a text: no zero byte, no half of a character. */
export const keepable = (text: string): boolean => !text.includes('\u0000') && text.isWellFormed();

/**
 * What came from outside (a message, a file's name, the words of a page) as the database keeps it: zero bytes go, half a character
 * becomes the replacement sign. Other than in a person's request, nobody is there to be told.
 */
export function cleaned<T>(data: T): T {
  if (typeof data === 'string') return (keepable(data) ? data : data.replaceAll('\u0000', '').toWellFormed()) as T;
  if (Array.isArray(data)) return data.map(cleaned) as T;
  if (data === null || typeof data !== 'object' || Object.getPrototypeOf(data) !== Object.prototype) return data;
  return Object.fromEntries(Object.entries(data).map(([name, value]) => [name, cleaned(value)])) as T;
}
