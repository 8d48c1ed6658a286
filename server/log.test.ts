import { DrizzleQueryError } from 'drizzle-orm';
import fc from 'fast-check';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { logError, logLine } from './log.ts';

let said: string[] = [];
beforeEach(() => {
  said = [];
  vi.spyOn(console, 'error').mockImplementation((line: string) => void said.push(line));
});
afterEach(() => vi.restoreAllMocks());

/** Something that must never be found in a log, and is not part of any path or name in it. */
const secret = fc.string({ minLength: 4, maxLength: 40 }).map((s) => `§${s}§`);

describe('the log', () => {
  it('holds nothing of a message, a statement or its values, however deep the error lies', () =>
    fc.assert(
      fc.property(secret, fc.integer({ min: 0, max: 3 }), (text, depth) => {
        said = [];
        let error: Error = Object.assign(new Error(text), { code: '23505', detail: text, constraint: 'bill_number_once' });
        for (let i = 0; i < depth; i++)
          error = i % 2 ? new Error(text, { cause: error }) : new DrizzleQueryError(`select ${text}`, [text], error);
        logError('a test', error);
        expect(said).toHaveLength(1);
        expect(said[0]).not.toContain(text);
        expect(said[0]).toContain('23505');
        expect(said[0]).toContain('bill_number_once');
      }),
    ));
  it('holds no code or constraint that is no name', () => {
    logError('a test', Object.assign(new Error('x'), { code: 'pass word\nforged line' }));
    expect(said[0]).not.toMatch(/pass|forged/);
    expect(said[0]!.split('\n')).toHaveLength(1);
  });
  it('gives the id under which the line is found, each time another', () => {
    const ids = Array.from({ length: 50 }, () => logError('a test', new Error('x')));
    expect(new Set(ids).size).toBe(50);
    for (const [i, id] of ids.entries()) expect(said[i]).toContain(` ${id} a test: Error`);
  });
  it('says what was thrown that is no error by its kind alone', () => {
    for (const [thrown, kind] of [
      ['text', 'string'],
      [undefined, 'undefined'],
      [{ a: 1 }, 'object'],
    ] as const) {
      logError('a test', thrown);
      expect(said.at(-1)).toMatch(new RegExp(`a test: ${kind}$`));
    }
  });
  it('has lines of our own with their time', () => {
    logLine('The database is back.');
    expect(said[0]).toMatch(/^\d{4}-\d\d-\d\dT[\d:.]+Z The database is back\.$/);
  });
});
