/** The scenario's companies, to whom documents are addressed. All invented. */
export const companies = [
  {
    code: 'MBG',
    name: 'Marrowby Botanic Gardens',
    taxId: 'GB402771935',
    country: 'GB' as const,
    baseCurrency: 'GBP',
    mailAddress: 'invoices@gardens.marrowby.example',
    address: ['The Long Walk', 'Marrowby', 'MB1 4QT', 'United Kingdom'],
  },
  {
    code: 'MNT',
    name: 'Marrowby Nursery Trading Ltd',
    taxId: 'GB402772011',
    country: 'GB' as const,
    baseCurrency: 'GBP',
    mailAddress: 'invoices@nursery.marrowby.example',
    address: ['The Long Walk', 'Marrowby', 'MB1 4QT', 'United Kingdom'],
  },
  {
    code: 'JMB',
    name: 'Jardin Marrowby SARL',
    taxId: 'FR00402772099',
    country: 'FR' as const,
    baseCurrency: 'EUR',
    mailAddress: 'factures@jardin.marrowby.example',
    address: ['4 chemin des Fougères', '29999 Kerlande', 'France'],
  },
];
