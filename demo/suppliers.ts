import { isIban } from '@ledgerline/core/reading';

export interface Item {
  code: string | null;
  text: string;
  unit: string | null;
  price: string;
  /** ledger account */ account: string;
  rate: string;
}
export interface DemoSupplier {
  name: string;
  company: string;
  street: string;
  town: string;
  country: string;
  currency: string;
  domain: string;
  taxId: string;
  iban: string;
  terms: string;
  phone: string;
  layout: number;
  account: string;
  centre: string;
  items: Item[];
  every: number;
}

/** A valid IBAN (modulo 97) of a bank that does not exist. */
function iban(country: string, seed: number): string {
  const digits = (n: number) => String((seed * 7919 + 104729) % 10 ** n).padStart(n, '0');
  const body = { GB: `XQZB00${digits(6)}${digits(6)}`, NL: `XQZB0${digits(9)}`, FR: `00099${'00011'}${digits(11)}${digits(2)}` }[country];
  if (!body) return '';
  for (let check = 2; check < 99; check++) {
    const whole = country + String(check).padStart(2, '0') + body;
    if (isIban(whole)) return whole;
  }
  return '';
}

const item = (text: string, price: string, account: string, rate = '20', code: string | null = null, unit: string | null = null): Item => ({
  code,
  text,
  unit,
  price,
  account,
  rate,
});

type Row = [
  name: string,
  company: string,
  street: string,
  town: string,
  country: string,
  terms: string,
  centre: string,
  every: number,
  items: Item[],
];
const rows: Row[] = [
  [
    'Quillhaven Glasshouse Repairs Ltd',
    'MBG',
    '3 Puttywell Row',
    'Brackenhithe BQ2 4LN',
    'GB',
    '30 days',
    '210',
    20,
    [
      item('Toughened pane 6 mm 600 x 400', '38.75', '6140', '20', 'QG-604'),
      item('Glazing bar, aluminium, 2.4 m', '21.40', '6140', '20', 'QG-611'),
      item('Silicone sealant clear 310 ml', '4.15', '6140', '20', 'QS-020'),
      item('Roof vent hinge, pair', '17.60', '6140', '20', 'QV-118'),
    ],
  ],
  [
    'Mossgarth Growing Media Ltd',
    'MBG',
    'Peatless Farm',
    'Mossgarth MG7 1AB',
    'GB',
    '30 days',
    '230',
    14,
    [
      item('Ericaceous blend, bark based, 50 l', '7.35', '6000', '20', 'MG-E50', 'bag'),
      item('Horticultural grit 20 kg', '3.64', '6000', '20', 'MG-G20', 'bag'),
      item('Seed compost, peat free, 40 l', '6.20', '6000', '20', 'MG-S40', 'bag'),
      item('Vermiculite, medium, 100 l', '16.35', '6000', '20', 'MG-V100', 'bag'),
    ],
  ],
  [
    'Sluicegate Irrigation Ltd',
    'MBG',
    '14 Weirside',
    'Tarnholm TQ3 9PW',
    'GB',
    '30 days',
    '230',
    28,
    [
      item('Misting nozzle, anti-drip', '3.18', '6040', '20', 'SG-MN4'),
      item('Irrigation controller, 12 zone', '329.00', '6040', '20', 'SG-C12'),
      item('Polyethylene pipe 25 mm, 50 m', '41.90', '6040', '20', 'SG-P25'),
      item('Rain sensor, hard wired', '29.95', '6040', '20', 'SG-RS2'),
    ],
  ],
  [
    'De Drie Tulpen Kwekerij B.V.',
    'MNT',
    'Bollendijk 22',
    '0998 ZY Noorderwaard',
    'NL',
    '30 dagen',
    '410',
    24,
    [
      item("Tulipa 'Morning Hymn' 12/+", '0.145', '5010', '0', '10214'),
      item('Fritillaria meleagris 7/8', '0.098', '5010', '0', '50011'),
      item('Narcissus poeticus 12/14', '0.126', '5010', '0', '20141'),
      item('Crocus tommasinianus 5/7', '0.044', '5010', '0', '30509'),
    ],
  ],
  [
    'Copper Kettle Catering Supplies Ltd',
    'MBG',
    'The Cold Store, Larder Lane',
    'Gristmouth GR7 1DD',
    'GB',
    '14 days',
    '420',
    8,
    [
      item('Chopped tomatoes 6 x 2.5 kg', '19.80', '5080', '0', '1042'),
      item('Oat drink, barista 6 x 1 l', '9.90', '5080', '0', '2054'),
      item('Ginger beer 12 x 330 ml', '12.20', '5080', '20', '4039'),
      item('Napkins, recycled, 2 ply', '22.90', '5080', '20', '5010'),
    ],
  ],
  [
    'Hollin & Rook Signwrights',
    'MBG',
    '7 Chisel Court',
    'Upper Pennow PN2 5HA',
    'GB',
    '30 days',
    '600',
    60,
    [
      item('Oak finger post, three arms, carved lettering', '640.00', '6930'),
      item('Opening hours board, changeable numerals', '412.75', '6930'),
      item('Enamel plant label, engraved', '14.20', '6050'),
    ],
  ],
  [
    'Greenbough Tree Care Ltd',
    'MBG',
    'Hollow Cottage, Acorn Lane',
    'Little Marle ML9 6TE',
    'GB',
    '14 days',
    '200',
    35,
    [
      item('Dead-wooding and inspection, veteran oak', '480.00', '6110', '20', null, 'days'),
      item('Felling of ash with dieback', '520.00', '6110', '20', null, 'days'),
      item('Stump grinding', '145.00', '6110', '20', null, 'each'),
    ],
  ],
  [
    'Cinderwick Heating Services Ltd',
    'MBG',
    '88 Furnace Street',
    'Cinderwick CW5 3GG',
    'GB',
    '28 days',
    '210',
    30,
    [
      item('Heating engineer, normal hours', '64.00', '6160', '20', 'LAB-E', 'hr'),
      item('Flue gasket kit', '23.75', '6160', '20', 'CH-1008', 'ea'),
      item('Room thermostat, glasshouse rated', '92.30', '6160', '20', 'CH-5120', 'ea'),
    ],
  ],
  [
    'Brightmop Cleaning Contractors Ltd',
    'MBG',
    'Bucket House, Brine Street',
    'Gristmouth GR7 4LP',
    'GB',
    '30 eom',
    '300',
    30,
    [
      item('Contract cleaning, Education Centre', '23.80', '6750', '20', null, 'hr'),
      item('Paper hand towels, case', '18.40', '6750'),
      item('Window cleaning, gatehouse', '85.00', '6750'),
    ],
  ],
  [
    'Tallywell Pallet Lines Ltd',
    'MNT',
    'Depot 9, Axle Way',
    'Tally Cross TY11 8TT',
    'GB',
    '14 days',
    '410',
    15,
    [
      item('Pallet, Marrowby to Tarnholm', '57.20', '6300'),
      item('Pallet, Noorderwaard to Marrowby', '146.50', '6300'),
      item('Tail lift delivery', '18.00', '6300'),
    ],
  ],
  [
    'Ribbon & Reed Label Printers Ltd',
    'MNT',
    'The Ribbon Works',
    'Weftholm WH4 4NB',
    'GB',
    '30 days',
    '410',
    45,
    [
      item('Plant label 100 x 25 mm, sage green', '0.0269', '6050', '20', 'RL-100G'),
      item('Barcode label 38 x 25 mm, on roll', '0.0685', '6050', '20', 'RL-B38'),
      item('Hazard label, laminated', '0.0543', '6050', '20', 'RL-HZ2'),
    ],
  ],
  [
    'Loambury Soil Laboratory Ltd',
    'MBG',
    'Auger House',
    'Loambury LB8 2CK',
    'GB',
    '30 days',
    '250',
    60,
    [
      item('Free-living nematode count', '39.50', '6090', '20', 'N05'),
      item('Electrical conductivity and nitrate', '12.60', '6090', '20', 'S15'),
      item('Particle size distribution', '31.00', '6090', '20', 'S07'),
    ],
  ],
  [
    'Otterlea Electric Supply Ltd',
    'MBG',
    'PO Box 41',
    'Otterlea OL1 1ES',
    'GB',
    '14 days',
    '120',
    30,
    [
      item('Day units', '0.2732', '6400', '20', null, 'kWh'),
      item('Night units', '0.1984', '6400', '20', null, 'kWh'),
      item('Standing charge', '0.945', '6400', '20', null, 'days'),
    ],
  ],
  [
    'Spanwire Broadband Ltd',
    'MBG',
    'Cabinet Yard',
    'Cinderwick CW1 9WF',
    'GB',
    '10 days',
    '100',
    30,
    [item('Fibre line 500, Education Centre', '49.00', '6610'), item('Public wi-fi for visitors', '96.00', '6610')],
  ],
  [
    'Winch & Tackle Tool Hire Ltd',
    'MBG',
    'Yard 2, Hoist Lane',
    'Brackenhithe BQ4 9MM',
    'GB',
    '30 days',
    '200',
    22,
    [
      item('Mini excavator 1.5 t, per week', '215.00', '6540', '20', '0417', 'weeks'),
      item('Lighting tower, per week', '97.40', '6540', '20', '0940', 'weeks'),
      item('Wood chipper, towed, per week', '188.00', '6540', '20', '0291', 'weeks'),
    ],
  ],
  [
    'Wicker & Thimble Wholesale Gifts Ltd',
    'MNT',
    'Haberdash Yard, 21 Pin Row',
    'Pennow PN9 7RU',
    'GB',
    '30 days',
    '400',
    18,
    [
      item('Beetle tea towel, organic cotton', '4.15', '5050', '20', 'TT2644'),
      item('Thistle greeting card', '5.40', '5050', '20', 'CD1912'),
      item('Fern key ring, enamel', '1.85', '5050', '20', 'KR1255'),
      item('Bee notebook A5', '2.95', '5050', '20', 'NB1392'),
    ],
  ],
  [
    'Cornice & Swift Architects LLP',
    'MBG',
    '5 Mortar Place',
    'Upper Pennow PN2 8QD',
    'GB',
    '21 days',
    '700',
    60,
    [
      item('Drawings, Education Centre ramp', '86.00', '6820', '20', null, 'hrs'),
      item('Site inspection', '72.00', '6820', '20', null, 'hrs'),
    ],
  ],
  [
    'Hearthstone Seed Company, Inc.',
    'MNT',
    '2100 Millrace Road',
    'Harrow Bend, NE 00968',
    'US',
    'net 30',
    '410',
    40,
    [
      item('Echinacea purpurea, 1 oz', '11.25', '5020', '0', 'HS-1042'),
      item('Shortgrass mix, 5 lb', '118.50', '5020', '0', 'HS-1815'),
      item('Wild rye, 1 lb', '13.15', '5020', '0', 'HS-1902'),
    ],
  ],
  [
    'Kiritani Bonsai Tools K.K.',
    'MNT',
    '1-99 Hamadori',
    'Kawanobe',
    'JP',
    '30 days',
    '410',
    70,
    [item('Concave cutter, 200 mm', '4800', '5070', '0', 'KB-200'), item('Root rake, stainless', '2350', '5070', '0', 'KB-31')],
  ],
  [
    'Pépinières du Granit SARL',
    'JMB',
    '12 route du Moulin',
    '29998 Plouvern',
    'FR',
    '30 jours',
    '240',
    14,
    [
      item('Hortensia paniculata, pot 3 l', '6.40', '5000', '10', 'HP3'),
      item('Camélia sasanqua, pot 4 l', '11.20', '5000', '10', 'CS4'),
      item('Fougère royale, godet', '2.15', '5000', '10', 'FR9'),
    ],
  ],
  [
    'Terreaux de la Lande SAS',
    'JMB',
    '3 zone des Ajoncs',
    '29997 Landrezac',
    'FR',
    '30 jours',
    '230',
    25,
    [item('Terreau horticole 70 l', '6.90', '6000', '20', 'TH70'), item('Écorces de pin 60 l', '5.35', '6000', '20', 'EP60')],
  ],
  [
    'Transports Korrigan SARL',
    'JMB',
    '8 quai des Brumes',
    '29996 Port-Aven',
    'FR',
    '30 jours',
    '100',
    30,
    [item('Transport palette, région', '64.00', '6300', '20'), item('Supplément hayon', '15.00', '6300', '20')],
  ],
];
const small: [string, string, string, string, string][] = [
  ['Alderbank Office Supplies Ltd', 'MBG', '6700', '110', 'Stationery order'],
  ['Bellfounder Audit LLP', 'MBG', '6800', '110', 'Interim audit fee'],
  ['Candlewick Insurance Brokers Ltd', 'MBG', '7110', '100', 'Premium instalment'],
  ['Dovecote Printing Ltd', 'MBG', '6710', '520', 'Members newsletter, printing'],
  ['Elmsett Pest Control Ltd', 'MBG', '6230', '230', 'Routine visit'],
  ['Ferrywell Fencing Ltd', 'MBG', '6220', '270', 'Chestnut paling, supplied and fixed'],
  ['Gorsehill Waste Ltd', 'MBG', '6760', '620', 'Skip exchange'],
  ['Harrowgate Security Ltd', 'MBG', '6770', '600', 'Night patrols'],
  ['Inkwell & Vane Design Ltd', 'MBG', '7030', '500', 'Exhibition panels, design'],
  ['Jessamine Training Ltd', 'MBG', '6860', '100', 'First aid course'],
  ['Kestrel Vehicle Repairs Ltd', 'MBG', '6510', '620', 'Service and test'],
  ['Lanternhouse Software Ltd', 'MBG', '6640', '110', 'Licence, monthly'],
  ['Millpond Ice Cream Ltd', 'MNT', '5090', '430', 'Ice cream, assorted'],
  ['Nettlecombe Books Ltd', 'MNT', '5060', '400', 'Garden guides'],
  ['Orchard Vale Pots Ltd', 'MNT', '5030', '410', 'Terracotta pots, mixed'],
  ['Papermoon Packaging Ltd', 'MNT', '5100', '410', 'Cartons, double wall'],
  ['Rushlight Gas Ltd', 'MBG', '6410', '210', 'Gas supply'],
  ['Sedgemere Water Ltd', 'MBG', '6440', '250', 'Water supply'],
];
for (const [name, company, account, centre, text] of small)
  rows.push([
    name,
    company,
    `${((name.length * 7) % 90) + 1} Market Row`,
    'Marleton MT3 2QS',
    'GB',
    '30 days',
    centre,
    30,
    [item(text, `${((name.length * 13) % 300) + 40}.00`, account, name.includes('Ice') || name.includes('Books') ? '0' : '20')],
  ]);

export const suppliers: DemoSupplier[] = rows.map(([name, company, street, town, country, terms, centre, every, items], i) => {
  const domain = `${name
    .toLowerCase()
    .normalize('NFD')
    .replace(/[^a-z]+/g, '')
    .slice(0, 12)}.example`;
  const number = String(300000000 + (((i + 3) * 27182818) % 599999999)).slice(0, 9);
  const taxId =
    { GB: `GB${number}`, NL: `NL${number}B0${(i % 8) + 1}`, FR: `FR${10 + i}${number}`, US: `00-5${number.slice(0, 6)}`, JP: '' }[
      country
    ] ?? '';
  return {
    name,
    company,
    street,
    town,
    country,
    currency: { GB: 'GBP', NL: 'EUR', FR: 'EUR', US: 'USD', JP: 'JPY' }[country]!,
    domain,
    taxId,
    iban: iban(country, i + 11),
    terms,
    phone: `01632 96${String(1000 + i * 37).slice(0, 4)}`,
    layout: i % 6,
    account: items[0]!.account,
    centre,
    items,
    every,
  };
});
