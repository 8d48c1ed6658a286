/** Codes of UN/ECE Recommendation 20 and 21 that invoices use most, as people write them. */
const words: Record<string, string> = {
  H87: 'pc', C62: 'unit', EA: 'each', NAR: 'pc', PR: 'pair', SET: 'set', DZN: 'dozen', XBG: 'bag', XBX: 'box', XPK: 'pack', XCT: 'carton', XRO: 'roll', XPX: 'pallet', XSA: 'sack', XBO: 'bottle',
  KGM: 'kg', GRM: 'g', TNE: 't', LTR: 'l', MLT: 'ml', MTR: 'm', CMT: 'cm', MMT: 'mm', KMT: 'km', MTK: 'm²', MTQ: 'm³', KWH: 'kWh', HUR: 'h', MIN: 'min', DAY: 'day', WEE: 'week', MON: 'month', ANN: 'year', LS: 'lump sum', P1: '%',
};

/** A unit code in a word; a code that is not known stays as it is. */
export const unitWord = (code: string): string => words[code] ?? code;
