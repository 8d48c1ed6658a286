import { dec, type Decimal } from '../money/index.ts';

/** How many of its kind's least unit a unit is: pieces, grams, millilitres, millimetres, square centimetres, minutes. */
const units: Record<string, [kind: string, size: string]> = {};
const add = (kind: string, size: string, names: string) => names.split(' ').forEach((name) => (units[name] = [kind, size]));
add('count', '1', 'pc pcs piece pieces each ea st stk stuck unit units no nos item items u');
add('count', '2', 'pair pairs pr');
add('count', '12', 'dozen doz dz');
add('count', '100', 'hundred c');
add('count', '144', 'gross gr');
add('count', '1000', 'thousand');
add('mass', '1', 'g gram grams');
add('mass', '1000', 'kg kilo kilos kilogram kilograms');
add('mass', '1000000', 't tonne tonnes');
add('volume', '1', 'ml');
add('volume', '10', 'cl');
add('volume', '1000', 'l lt ltr litre litres liter liters');
add('volume', '1000000', 'm3 m³ cbm');
add('length', '1', 'mm');
add('length', '10', 'cm');
add('length', '1000', 'm metre metres meter meters mtr');
add('length', '1000000', 'km');
add('area', '1', 'cm2 cm²');
add('area', '10000', 'm2 m² sqm');
add('time', '1', 'min minute minutes');
add('time', '60', 'h hr hrs hour hours');

/** "box of 100", "pack/50", "100 pcs", "bag 25 kg": so many of a unit in one. */
function sizeOf(text: string): [kind: string, size: Decimal] | null {
  const plain = text
    .toLowerCase()
    .normalize('NFKC')
    .replace(/[.,;:()]+$/g, '')
    .trim();
  const known = units[plain.replace(/\.$/, '')];
  if (known) return [known[0], dec(known[1])];
  const packed = /^[a-zäöüß]*\.?\s*(?:of|à|a|x|\/)?\s*(\d{1,6}(?:\.\d{1,3})?)\s*([a-z²³0-9]*)$/.exec(plain);
  if (!packed || dec(packed[1]!).lte(0)) return null;
  const inside = packed[2] === '' ? ['count', '1'] : units[packed[2]!];
  return inside ? [inside[0]!, dec(inside[1]!).times(packed[1]!)] : null;
}

/** How many of the unit `to` one of the unit `from` is; null where nobody can tell. Two units that are written alike are one. */
export function unitFactor(from: string | null, to: string | null): Decimal | null {
  if (from === null || to === null) return null;
  if (from.trim().toLowerCase() === to.trim().toLowerCase()) return dec(1);
  const [a, b] = [sizeOf(from), sizeOf(to)];
  return a && b && a[0] === b[0] ? a[1].div(b[1]) : null;
}
