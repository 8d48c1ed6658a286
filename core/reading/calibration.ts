import { measured } from './measured.ts';
import { headerPaths } from './paths.ts';
import type { HeaderField, Read, Reading, ReadLine } from './types.ts';

/** By field: raw confidence up to which, and the share that was right, rising. */
export type Calibration = Record<string, [number, number][]>;

/** The measured share of right values for a raw confidence; the raw one where nothing was measured. */
export function calibrated(field: string, raw: number): number {
  return stepped(measured[field] ?? [], raw);
}

/** The measured share of the step that a raw confidence falls into; the last step's beyond it, and the raw one without any. */
export const stepped = (steps: readonly (readonly [number, number])[], raw: number): number =>
  (steps.find(([upTo]) => raw <= upTo + 1e-9) ?? steps.at(-1) ?? [1, raw])[1];

const cells = ['code', 'description', 'quantity', 'unitPrice', 'discountPercent', 'taxRate', 'amount'] as const;

const own = <R extends Read | null>(field: string, read: R): R =>
  read ? { ...read, confidence: calibrated(field, read.confidence) } : read;

/** A reading whose confidences are the measured ones: 0.9 is right nine times in ten. */
export function calibrate(reading: Reading): Reading {
  const header = { ...reading.header };
  for (const [field, path] of Object.entries(headerPaths) as [HeaderField, string][]) header[field] = own(path, header[field]);
  return { ...reading, header, kindConfidence: calibrated('kind', reading.kindConfidence) };
}

/** Lines that were read under headings, with the measured confidences of those rules. */
export const calibrateLines = (lines: readonly ReadLine[]): ReadLine[] =>
  lines.map((line) => ({ ...line, ...Object.fromEntries(cells.map((cell) => [cell, own(`lines.${cell}`, line[cell])])) }));
