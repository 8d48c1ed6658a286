/** The scenario's master data: chart of accounts, cost centres, rates. All invented. */
const group = (from: number, name: string, kind: string, names: string) =>
  names.split(';').map((n, i) => ({ code: String(from + i * 10), name: n.trim(), group: name, kind }));

export const accounts = [
  ...group(
    1000,
    'Fixed assets',
    'asset',
    'Glasshouses; Garden buildings; Vehicles; Garden machinery; Computers; Furniture; Plant collections; Assets under construction',
  ),
  ...group(1200, 'Bank and cash', 'bank', 'Current account; Deposit account; Petty cash; Card float'),
  ...group(1400, 'Stock', 'asset', 'Plants for resale; Shop stock; Café stock; Seed bank; Compost and sundries; Packaging'),
  ...group(1800, 'Tax', 'tax', 'Recoverable tax on purchases'),
  ...group(1900, 'Prepayments', 'asset', 'Prepaid insurance; Prepaid rent; Deposits paid; Other prepayments'),
  ...group(2100, 'Suppliers', 'payable', 'Trade suppliers'),
  ...group(
    2200,
    'Other liabilities',
    'liability',
    'Reverse charge tax owed; Tax on sales; Payroll liabilities; Accruals; Deferred membership income; Grants in advance',
  ),
  ...group(3000, 'Funds', 'equity', 'General fund; Designated funds; Restricted funds; Endowment'),
  ...group(
    4000,
    'Income',
    'income',
    'Admissions; Memberships; Donations; Plant sales; Shop sales; Café sales; Education fees; Events; Venue hire; Grants',
  ),
  ...group(
    5000,
    'Goods for resale',
    'expense',
    'Plants bought in; Bulbs and corms; Seeds; Pots and planters; Composts for sale; Gifts and cards; Books; Garden tools for sale; Food and drink; Ice cream; Packaging for sale; Carriage inwards',
  ),
  ...group(
    6000,
    'Horticulture',
    'expense',
    'Growing media; Fertilisers; Crop protection; Biological control; Irrigation parts; Labels and signage; Propagation supplies; Horticultural tools; Protective clothing; Laboratory tests; Plant health; Tree work; Turf and seed; Stakes and ties',
  ),
  ...group(
    6140,
    'Buildings',
    'expense',
    'Glasshouse repairs; Building repairs; Heating repairs; Electrical repairs; Plumbing; Decorating; Roofs and gutters; Paths and paving; Fencing and gates; Pest control; Lift and access; Fire safety',
  ),
  ...group(6300, 'Carriage and postage', 'expense', 'Carriage inwards; Carriage outwards; Postage; Courier; Pallets'),
  ...group(6400, 'Energy and water', 'expense', 'Electricity; Gas; Heating oil; Biomass fuel; Water; Sewerage; Fuel for machinery'),
  ...group(
    6500,
    'Vehicles and machinery',
    'expense',
    'Vehicle fuel; Vehicle repairs; Vehicle insurance; Machinery repairs; Equipment hire; Skip hire',
  ),
  ...group(6600, 'Communication', 'expense', 'Telephone; Broadband; Mobile phones; Website; Software; Computer supplies'),
  ...group(6700, 'Office', 'expense', 'Stationery; Printing; Subscriptions; Bank charges; Card fees; Office cleaning; Waste; Security'),
  ...group(
    6800,
    'Services',
    'expense',
    'Audit; Legal fees; Architects; Surveyors; Consultants; Translation; Training; Recruitment; Agency staff',
  ),
  ...group(
    6900,
    'Visitors and learning',
    'expense',
    'Exhibitions; School materials; Guidebooks; Signs for visitors; Events; Performers; Catering for events; Volunteers; Travel; Accommodation',
  ),
  ...group(7000, 'Promotion', 'expense', 'Advertising; Leaflets; Photography; Design; Trade shows; Membership mailings'),
  ...group(7100, 'Insurance and rent', 'expense', 'Public liability; Buildings insurance; Collections insurance; Ground rent; Storage'),
  ...group(7200, 'Other costs', 'expense', 'Rounding differences; Exchange differences; Bad debts; Donations made; Sundry'),
];

export const costCentres = [
  ['100', 'Administration'],
  ['110', 'Finance'],
  ['120', 'Estates office'],
  ['200', 'Arboretum'],
  ['210', 'Palm House'],
  ['220', 'Alpine House'],
  ['230', 'Propagation houses'],
  ['240', 'Herbaceous garden'],
  ['250', 'Bog garden'],
  ['260', 'Kitchen garden'],
  ['270', 'Orchard'],
  ['300', 'Education Centre'],
  ['310', 'Herbarium and library'],
  ['320', 'Seed bank'],
  ['400', 'Garden shop'],
  ['410', 'Plant nursery'],
  ['420', 'Glasshouse Café'],
  ['430', 'Tea lawn'],
  ['500', 'Events'],
  ['510', 'Weddings'],
  ['520', 'Members and friends'],
  ['600', 'Gatehouse'],
  ['610', 'Car park'],
  ['620', 'Workshops'],
  ['700', 'Restoration project'],
].map(([code, name]) => ({ code: code!, name: name! }));

/** Cost centres that are part of another, by the other's code; and who answers for some. */
export const centreParts: Record<string, string[]> = { '100': ['110', '120'], '300': ['310', '320'], '500': ['510', '520'] };
export const centreOwners: Record<string, string> = {
  '100': 'Halina Voss',
  '200': 'Marguerite Sable',
  '300': 'Rufus Pell',
  '500': 'Marguerite Sable',
};
/** Accounts whose lines usually bear no tax: postage and insurance. */
export const untaxedAccounts = ['6320', '7100', '7110', '7120'];

/** How costs of the site are shared out: square metres, and people who work there. */
export const distributionKeys: { name: string; parts: [centre: string, weight: string][] }[] = [
  { name: 'Site rent by floor area', parts: [['210', '1240'], ['220', '310'], ['300', '655'], ['400', '420'], ['420', '275']] }, // prettier-ignore
  { name: 'Telephone by desks', parts: [['110', '4'], ['120', '3'], ['300', '2']] }, // prettier-ignore
];

/** What the garden codes by beside account and cost centre. Going: what goes with a value, by the other dimension's field and code. */
export const dimensions = [
  {
    field: 'dimension1' as const,
    name: 'Project',
    values: [
      ['PALMROOF', 'Palm House roof'],
      ['WETLAND', 'Wetland boardwalk'],
      ['SCHOOLS', 'Schools programme'],
      ['VISITOR', 'Visitor signs'],
    ],
  },
  {
    field: 'dimension2' as const,
    name: 'Fund',
    values: [
      ['GENERAL', 'General fund'],
      ['HERITAGE', 'Heritage appeal'],
      ['LEGACY', 'Legacies for planting'],
    ],
  },
];
export const projectFunds: Record<string, string> = { PALMROOF: 'HERITAGE', WETLAND: 'LEGACY', SCHOOLS: 'GENERAL' };
/** Cost centres that are there for one project. */
export const centreProjects: Record<string, string> = { '700': 'PALMROOF' };
/** Accounts whose lines need a project: what is built, and who measures for it. */
export const projectAccounts = ['1070', '6830'];

/** Units of pound or euro for one of the other currency, by month so that history has rates. */
export const rates: Record<string, Record<string, number>> = {
  GBP: { EUR: 0.8562, USD: 0.7741, JPY: 0.005163 },
  EUR: { GBP: 1.1679, USD: 0.9041 },
};

/** What is bought again and again. A power bill is an item with an account and no price. */
export const items: {
  code: string;
  name: string;
  alsoCalled: string | null;
  unit: string | null;
  price: string | null;
  account: string;
  stocked?: boolean;
}[] = [
  { code: 'POWER', name: 'Electricity', alsoCalled: 'day units, night units, KWH', unit: 'kWh', price: null, account: '6400' },
  { code: 'PHONE', name: 'Telephone', alsoCalled: 'line rental, calls', unit: null, price: null, account: '6600' },
  {
    code: 'COMPOST-80',
    name: 'Peat-free compost, 80 l',
    alsoCalled: 'multi-purpose compost',
    unit: 'bag',
    price: '8.40',
    account: '6000',
    stocked: true,
  },
  { code: 'POT-2L', name: 'Pot, 2 l', alsoCalled: 'container pot 2', unit: 'piece', price: '0.22', account: '5030', stocked: true },
  {
    code: 'GLASS-PANE',
    name: 'Glass pane, 610 × 610 mm',
    alsoCalled: 'horticultural glass',
    unit: 'piece',
    price: '14.50',
    account: '6140',
  },
  { code: 'SKIP-8', name: 'Skip, 8 yards', alsoCalled: 'skip hire', unit: 'piece', price: '245.00', account: '6550' },
];

/** What may be spent in a month: account, cost centre (null: all together), pounds or euros. */
export const budgets: [account: string, centre: string | null, monthly: string][] = [
  ['6110', '200', '9000'],
  ['6540', '200', '6300'],
  ['6440', '250', '4800'],
  ['6410', '210', '3200'],
  ['6400', '120', '2200'],
  ['6400', null, '3000'],
  ['6040', '230', '2800'],
  ['6140', '210', '1300'],
  ['6160', '210', '1500'],
  ['6800', '110', '5600'],
  ['6710', '520', '3300'],
  ['6930', '600', '6500'],
  ['6760', '620', '4500'],
  ['7030', '500', '1300'],
];
/** Of the company's fixed assets: code, name, account, in use from, serial number, place. */
export const assets: [code: string, name: string, account: string, since: string, serial: string, place: string][] = [
  ['PALMHOUSE', 'Palm House', '1000', '1998-04-01', '', 'Palm House'],
  ['TRACTOR-2', 'Tractor, 45 hp', '1030', '2021-03-15', 'TX45-20817', 'Arboretum yard'],
  ['VAN-3', 'Delivery van', '1020', '2023-06-02', 'MG22 KVL', 'Nursery'],
  ['BOILER-1', 'Biomass boiler', '1010', '2019-10-20', 'BMB-118', 'Boiler house'],
];
