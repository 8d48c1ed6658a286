import { stdnum, type Validator } from 'stdnum';
import { squash } from './identifiers.ts';

/** Tax numbers that begin with their country (VAT Directive formats): what follows it, and by which rule its check digits are told. */
const directive: Record<string, [body: RegExp, rule: Validator | undefined]> = {
  AT: [/^U\d{8}$/, stdnum.AT?.uid],
  BE: [/^[01]\d{9}$/, stdnum.BE?.vat],
  BG: [/^\d{9,10}$/, stdnum.BG?.vat],
  CY: [/^\d{8}[A-Z]$/, stdnum.CY?.vat],
  CZ: [/^\d{8,10}$/, stdnum.CZ?.dic],
  DE: [/^\d{9}$/, stdnum.DE?.vat],
  DK: [/^\d{8}$/, stdnum.DK?.cvr],
  EE: [/^\d{9}$/, stdnum.EE?.kmkr],
  EL: [/^\d{9}$/, stdnum.GR?.vat],
  ES: [/^[A-Z0-9]\d{7}[A-Z0-9]$/, stdnum.ES?.nif],
  EU: [/^\d{9}$/, undefined],
  FI: [/^\d{8}$/, stdnum.FI?.alv],
  FR: [/^[A-Z0-9]{2}\d{9}$/, stdnum.FR?.tva],
  GB: [/^\d{9}(\d{3})?$/, stdnum.GB?.vat],
  HR: [/^\d{11}$/, stdnum.HR?.oib],
  HU: [/^\d{8}$/, stdnum.HU?.anum],
  IE: [/^\d[A-Z0-9]\d{5}[A-Z]{1,2}$/, stdnum.IE?.vat],
  IT: [/^\d{11}$/, stdnum.IT?.iva],
  LT: [/^\d{9}(\d{3})?$/, stdnum.LT?.pvm],
  LU: [/^\d{8}$/, stdnum.LU?.tva],
  LV: [/^\d{11}$/, stdnum.LV?.pvn],
  MT: [/^\d{8}$/, stdnum.MT?.vat],
  NL: [/^\d{9}B\d{2}$/, stdnum.NL?.btw],
  PL: [/^\d{10}$/, stdnum.PL?.nip],
  PT: [/^\d{9}$/, stdnum.PT?.nif],
  SE: [/^\d{12}$/, stdnum.SE?.vat],
  SI: [/^\d{8}$/, stdnum.SI?.ddv],
  SK: [/^\d{10}$/, stdnum.SK?.dph],
  XI: [/^\d{9}(\d{3})?$/, stdnum.GB?.vat],
};
const prefixed = new RegExp(`(?<![\\p{L}\\p{N}])(${Object.keys(directive).join('|')})[ .-]?((?:[A-Z0-9]{1,12}[ .]?){1,5})`, 'gu');

export interface FoundTaxId {
  taxId: string;
  index: number;
  length: number;
}

/** Tax numbers with a country prefix in running text; spaces and points inside are dropped. */
export function findTaxIds(text: string): FoundTaxId[] {
  const found: FoundTaxId[] = [];
  for (const match of text.matchAll(prefixed)) {
    const body = match[2]!;
    for (let length = body.length; length > 5; length--) {
      const part = squash(body.slice(0, length));
      if (!directive[match[1]!]![0].test(part)) continue;
      found.push({ taxId: match[1]! + part, index: match.index, length: match[0].length - body.length + length });
      break;
    }
  }
  return found;
}

/** Shapes of tax numbers by country, as their offices give them out, with and without its letters; and the rule of their check digits. */
const shapes: [country: string, shape: RegExp, rule?: Validator | undefined][] = [
  ['au', /^\d{11}$/, stdnum.AU?.abn],
  ['in', /^\d{2}[A-Z]{5}\d{4}[A-Z][A-Z\d]Z[A-Z\d]$/, stdnum.IN?.gstin],
  ['jp', /^T\d{13}$/, stdnum.JP?.cn],
  ['no', /^(NO)?\d{9}(MVA)?$/, stdnum.NO?.orgnr],
  ['ch', /^CHE\d{9}(MWST|TVA|IVA)?$/, stdnum.CH?.uid],
  ['us', /^\d{9}$/],
  ['eu', /^EU\d{9}$/],
  ['gb', /^(GB)?\d{9}(\d{3})?$/, stdnum.GB?.vat],
  ['nl', /^(NL)?\d{9}B\d{2}$/, stdnum.NL?.btw],
  ['ca', /^\d{9}RT\d{4}$/, stdnum.CA?.bn],
  ['fr', /^FR[A-Z\d]{2}\d{9}$/, stdnum.FR?.tva],
  ['de', /^DE\d{9}$/, stdnum.DE?.vat],
  ['any', /^[A-Z]{2}[A-Z\d]?\d{7,11}[A-Z\d]{0,2}$/],
];

/** The countries whose tax numbers look like this: letters and digits alone; `directive` where it begins with one of theirs. */
export const taxNumberOf = (key: string): string[] => [
  ...shapes.filter(([, shape]) => shape.test(key)).map(([country]) => country),
  ...(directive[key.slice(0, 2)]?.[0].test(key.slice(2)) ? ['directive'] : []),
];

/** Whether it has a country's shape and its check digits hold by that country's rule. */
export function checkDigitsHold(key: string): boolean {
  const own = directive[key.slice(0, 2)];
  if (own?.[0].test(key.slice(2))) return own[1]?.validate(key.slice(2)).isValid === true;
  const bare = key.replace(/^(T|NO|CHE)(?=\d)|(RT\d{4}|MVA|MWST|TVA|IVA)$/g, '');
  return shapes.some(([country, shape, rule]) => rule && shape.test(key) && rule.validate(country === 'ch' ? `CHE${bare}` : bare).isValid);
}
