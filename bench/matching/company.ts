import { seeded } from '@ledgerline/documents/random';
import type { LineToBind, RowToBind } from '@ledgerline/core/matching';

const things = ['pot', 'saucer', 'compost', 'bark', 'hose', 'nozzle', 'cane', 'twine', 'fleece', 'tray', 'label', 'glove', 'spade', 'rake', 'pump', 'valve', 'filter', 'lamp']; // prettier-ignore
const kinds = [
  'terracotta',
  'black',
  'green',
  'heavy',
  'light',
  'square',
  'round',
  'tall',
  'small',
  'recycled',
  'coated',
  'plain',
  'double',
  'single',
];
const sizes = ['2 l', '5 l', '10 l', '20 kg', '40 l', '80 l', '25 mm', '50 m', '1.2 m', '9 cm', '13 cm', '60 x 40'];

/**
 * A supplier's open order lines and a bill of some of them, as suppliers write: half without codes, a fifth with words missing or in
 * another order, a twentieth in packs, a tenth of the rows of nothing that was ordered. `truth`: the line of each row that is of one.
 */
export function orderedAndBilled(
  lines: number,
  rows: number,
  seed: number,
): { lines: LineToBind[]; rows: RowToBind[]; truth: Map<string, string> } {
  const random = seeded(seed);
  const pick = <T>(of: readonly T[]): T => of[random.int(0, of.length - 1)]!;
  const made = Array.from({ length: lines }, (_, i): LineToBind => {
    const quantity = String(random.int(1, 60));
    return {
      id: `l${i}`,
      code: random.next() < 0.5 ? `${pick(['QA', 'QB', 'QC'])}-${1000 + i}` : null,
      description: `${pick(kinds)} ${pick(things)}, ${pick(sizes)}`,
      quantity,
      unit: 'pc',
      unitPrice: (random.int(20, 9000) / 100).toFixed(2),
      open: quantity,
    };
  });
  const truth = new Map<string, string>();
  const left = [...made];
  const billed = Array.from({ length: rows }, (_, i): RowToBind => {
    const id = `r${i}`;
    if (random.next() < 0.1)
      return { id, code: null, description: `${pick(['carriage', 'pallet charge', 'handling', 'sundries'])} ${i}`, quantity: '1', unit: null, unitPrice: (random.int(500, 4000) / 100).toFixed(2), amount: null }; // prettier-ignore
    const [line] = left.splice(random.int(0, left.length - 1), 1);
    truth.set(id, line!.id);
    const words = line!.description.split(/,? /),
      other = random.next();
    const description = other < 0.1 ? words.slice(0, -1).join(' ') : other < 0.2 ? [...words].reverse().join(' ') : line!.description;
    const packs = random.next() < 0.05 && Number(line!.quantity) % 12 === 0;
    return {
      id,
      code: random.next() < 0.8 ? line!.code : null,
      description,
      quantity: packs ? String(Number(line!.quantity) / 12) : line!.quantity,
      unit: packs ? 'dozen' : 'pc',
      unitPrice: packs ? (Number(line!.unitPrice) * 12).toFixed(2) : line!.unitPrice,
      amount: null,
    };
  });
  return { lines: made, rows: billed, truth };
}
