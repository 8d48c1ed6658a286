import { randomBytes } from 'node:crypto';

/**
 * What is written of an error: what it is and where, never its message, which may hold a document's text, a statement's values or a
 * password. Gives an id by which the line is found again.
 */
export function logError(where: string, error: unknown): string {
  const id = randomBytes(4).toString('hex');
  console.error(`${new Date().toISOString()} ${id} ${where}: ${told(error)}`);
  return id;
}

function told(error: unknown): string {
  if (!(error instanceof Error)) return typeof error;
  const code = 'code' in error && typeof error.code === 'string' && /^[\w.-]{1,60}$/.test(error.code) ? ` ${error.code}` : '';
  const constraint = 'constraint' in error && typeof error.constraint === 'string' ? ` (${error.constraint})` : '';
  const frames = (error.stack ?? '')
    .split('\n')
    .filter((line) => /^\s+at /.test(line) && !line.includes('node_modules') && !line.includes('node:'))
    .slice(0, 4)
    .map((line) => line.trim().replace(/\(?file:\/\/\S*\/(?=(?:server|core|contract|demo|scripts)\/)/, '('));
  const cause = error.cause instanceof Error ? ` ← ${told(error.cause)}` : '';
  return `${error.name}${code}${constraint}${frames.length ? ` ${frames.join(' ')}` : ''}${cause}`;
}

/** Something that happened to the server itself, in a sentence that holds nothing from outside. */
export const logLine = (sentence: string): void => console.error(`${new Date().toISOString()} ${sentence}`);
