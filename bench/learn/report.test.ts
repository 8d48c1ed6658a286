import { expect, it, vi } from 'vitest';
import { report } from './report.ts';
import type { DocumentScore } from './score.ts';
import { madeSamples } from './samples.ts';

const score = (right: boolean, faults: DocumentScore['faults'] = []): DocumentScore => ({
  header: { right: 12, all: 13 },
  rows: { right: 3, wanted: 4, said: 4 },
  right,
  untouched: false,
  silent: faults.filter((f) => !f.flagged).length,
  values: 20,
  faults,
});

it('says how documents were read, what is wrong in how many families, and shows what was asked for', () => {
  const [one, two] = madeSamples(2) as [ReturnType<typeof madeSamples>[0], ReturnType<typeof madeSamples>[0]];
  const said: string[] = [];
  const log = vi.spyOn(console, 'log').mockImplementation((line: string) => void said.push(line));
  const fault = { path: 'lines[2].quantity', wanted: '3', said: '4', flagged: false };
  try {
    report(
      [
        { sample: one, score: score(true) },
        { sample: two, score: score(false, [fault, { ...fault, path: 'dueDate', flagged: true }]) },
      ],
      'quantity',
    );
  } finally {
    log.mockRestore();
  }
  expect(said[0]).toBe('samples: 2 documents: header 92.3%, rows F1 75.0%, right 1 (50.0%), untouched 0.0%, silent 1 (2.5%)');
  expect(said.slice(1, 3).sort()).toEqual([
    '    1 families  dueDate (1, 0 not flagged)',
    '    1 families  lines[].quantity (1, 1 not flagged)',
  ]);
  expect(said.slice(3)).toEqual([`${two.name}\tlines[2].quantity !\t3 | 4`]);
});
