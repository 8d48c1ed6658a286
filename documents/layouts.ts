export type Cell = 'code' | 'text' | 'quantity' | 'unit' | 'price' | 'rate' | 'amount';
/** How one supplier's invoices look: words, order of columns, places, type. Data, so that more can be made up. */
export interface Layout {
  font: 'sans' | 'serif';
  paper: [number, number];
  columns: { cell: Cell; title: string; share: number }[];
  band: 'dark' | 'line' | 'none';
  labels: 'left' | 'above' | 'inline';
  words: Words;
  decimal: '.' | ',';
  date: 'long' | 'slashes' | 'dashes' | 'points' | 'us';
  letterhead: 'left' | 'right' | 'centre';
}
export interface Words {
  invoice: string;
  credit: string;
  number: string;
  creditNumber: string;
  date: string;
  due: string;
  order: string;
  to: string;
  goods: string;
  net: string;
  tax: string;
  total: string;
  terms: string;
  taxId: string;
}

const english: Words = {
  invoice: 'Invoice',
  credit: 'Credit note',
  number: 'Invoice no.',
  creditNumber: 'Credit note no.',
  date: 'Invoice date',
  due: 'Due date',
  order: 'Your order no.',
  to: 'Invoice to',
  goods: 'Goods total',
  net: 'Net total',
  tax: 'VAT',
  total: 'Total due',
  terms: 'Payment terms',
  taxId: 'VAT registration no.',
};
const dutch: Words = {
  invoice: 'FACTUUR',
  credit: 'CREDITNOTA',
  number: 'Factuurnummer',
  creditNumber: 'Creditnota nr',
  date: 'Factuurdatum',
  due: 'Vervaldatum',
  order: 'Uw bestelnummer',
  to: 'Factuuradres',
  goods: 'Subtotaal',
  net: 'Totaal excl. BTW',
  tax: 'BTW',
  total: 'Te betalen',
  terms: 'Betalingstermijn',
  taxId: 'BTW-nr.',
};
const french: Words = {
  invoice: 'FACTURE',
  credit: 'AVOIR',
  number: 'Facture n°',
  creditNumber: 'Avoir n°',
  date: 'Date de facture',
  due: 'Échéance',
  order: 'Votre commande',
  to: 'Facturer à',
  goods: 'Sous-total',
  net: 'Total HT',
  tax: 'TVA',
  total: 'Net à payer',
  terms: 'Conditions de paiement',
  taxId: 'N° TVA',
};
const us: Words = {
  ...english,
  invoice: 'INVOICE',
  number: 'Invoice #',
  date: 'Date',
  order: 'P.O. Number',
  to: 'Bill To',
  goods: 'Subtotal',
  net: 'Net amount',
  tax: 'Sales Tax',
  total: 'Total USD',
  terms: 'Terms',
  taxId: 'Fed. Tax ID',
};
const a4: [number, number] = [595, 842];

const columns = (spec: string): Layout['columns'] =>
  spec.split('|').map((part) => {
    const [cell, title, share] = part.split(':');
    return { cell: cell as Cell, title: title!, share: Number(share) };
  });

export const layouts: Layout[] = [
  {
    font: 'sans',
    paper: a4,
    columns: columns('code:Code:12|text:Description:46|quantity:Qty:10|price:Unit price:14|amount:Amount:18'),
    band: 'line',
    labels: 'above',
    words: english,
    decimal: '.',
    date: 'long',
    letterhead: 'right',
  },
  {
    font: 'sans',
    paper: a4,
    columns: columns('quantity:Qty:9|unit:Unit:9|code:Item code:13|text:Product:34|price:Price £:12|rate:VAT:9|amount:Net £:14'),
    band: 'dark',
    labels: 'left',
    words: { ...english, invoice: 'INVOICE', total: 'Invoice total' },
    decimal: '.',
    date: 'slashes',
    letterhead: 'left',
  },
  {
    font: 'serif',
    paper: a4,
    columns: columns('text:Particulars:52|quantity:Number:14|price:Rate:16|amount:£:18'),
    band: 'none',
    labels: 'inline',
    words: {
      ...english,
      invoice: 'Invoice',
      number: 'Invoice number:',
      creditNumber: 'Credit note number:',
      date: 'Tax point:',
      due: 'Payment due:',
      order: 'Your order:',
      total: 'Amount payable',
    },
    decimal: '.',
    date: 'points',
    letterhead: 'centre',
  },
  {
    font: 'sans',
    paper: a4,
    columns: columns('code:Item:13|text:Details:43|quantity:Quantity:13|price:Price each:15|amount:Total:16'),
    band: 'line',
    labels: 'left',
    words: { ...english, invoice: 'Sales invoice', to: 'Charge to', total: 'Please pay' },
    decimal: '.',
    date: 'dashes',
    letterhead: 'left',
  },
  {
    font: 'serif',
    paper: a4,
    columns: columns('quantity:Qty:10|text:Description:48|rate:VAT %:10|price:Unit price:15|amount:Value:17'),
    band: 'line',
    labels: 'left',
    words: { ...english, invoice: 'Tax invoice', total: 'Balance due' },
    decimal: '.',
    date: 'long',
    letterhead: 'right',
  },
  {
    font: 'sans',
    paper: a4,
    columns: columns('code:Ref:12|text:Item:44|quantity:Quantity:12|unit:Unit:8|price:Price:11|amount:Amount £:13'),
    band: 'dark',
    labels: 'above',
    words: { ...english, invoice: 'INVOICE', total: 'Total to pay' },
    decimal: '.',
    date: 'long',
    letterhead: 'left',
  },
];

/** The layout of a supplier: its own number, in its country's language. */
export function layoutFor(country: string, number: number): Layout {
  const base = layouts[number % layouts.length]!;
  if (country === 'NL')
    return {
      ...layouts[3]!,
      words: dutch,
      decimal: ',',
      date: 'dashes',
      columns: columns('code:Art.nr.:13|text:Omschrijving:43|quantity:Aantal:13|price:Prijs:15|amount:Bedrag:16'),
    };
  if (country === 'FR')
    return {
      ...layouts[number % 2 ? 1 : 3]!,
      words: french,
      decimal: ',',
      date: 'slashes',
      columns: columns('code:Référence:13|text:Désignation:41|quantity:Quantité:12|rate:TVA:8|price:Prix HT:12|amount:Montant HT:14'),
    };
  if (country === 'US')
    return {
      ...base,
      labels: 'above',
      paper: [612, 792],
      words: us,
      date: 'us',
      columns: columns('quantity:Qty:10|code:Item code:16|text:Description:42|price:Price each:15|amount:Extended:17'),
    };
  return base;
}
