import { measured } from './measured.ts';
import { headerPaths } from './paths.ts';
import type { HeaderField, Read, Reading } from './types.ts';

/** By field: raw confidence up to which, and the share that was right, rising. */
export type Calibration = Record<string, [number, number][]>;

/** The measured share of right values for a raw confidence; the raw one where nothing was measured. */
export function calibrated(field: string, raw: number): number {
  const steps = measured[field];
  if (!steps || steps.length === 0) return raw;
  return (steps.find(([upTo]) => raw <= upTo + 1e-9) ?? steps[steps.length - 1]!)[1];
}

const cells = ['code', 'description', 'quantity', 'unitPrice', 'discountPercent', 'taxRate', 'amount'] as const;

/** A reading whose confidences are the measured ones: 0.9 is right nine times in ten. */
export function calibrate(reading: Reading): Reading {
  const own = <R extends Read | null>(field: string, read: R): R =>
    read ? { ...read, confidence: calibrated(field, read.confidence) } : read;
  const header = { ...reading.header };
  for (const [field, path] of Object.entries(headerPaths) as [HeaderField, string][]) header[field] = own(path, header[field]);
  return {
    ...reading,
    header,
    kindConfidence: calibrated('kind', reading.kindConfidence),
    lines: reading.lines.map((line) => ({ ...line, ...Object.fromEntries(cells.map((cell) => [cell, own(`lines.${cell}`, line[cell])])) })),
  };
}
