import { plainWord } from '../learned/features.ts';

/**
 * What words of invoices speak of, by the beginnings of words in thirteen languages (English, Dutch, German, French, Spanish, Italian,
 * Swedish, Danish, Norwegian, Portuguese, Polish, Finnish, Czech), without accents; a word with "=" behind it is meant whole.
 * Evidence with a weight that is learned, and no gate: what is not among them is told by its place and shape.
 */
const said = {
  invoice:
    'invoice inv= bill= document dokument rechnung beleg factuur nota= notanr facture factura fattura faktur lasku fatura doklad recibo verifikat',
  credit: 'credit kredit gutschrift storno avoir= abono rectificat accredit korekt korygu dobropis hyvitys creditnota',
  order:
    'order ord= po= purchase bestell bestel opdracht auftrag commande cde= pedido encomenda requisi ordine ordin zamow objedn tilaus bestill rekvis ordre inkop instruction authori',
  number: 'nr= no= num= numer number nummer numero nro= n°= nº= #= cislo= čislo= numaro no.',
  reference: 'ref= refer rif= vref kenmerk zeichen uwref viite znak merkki referens',
  customer: 'customer cust= client kund klant debit relatie asiakas klient zakazn odberat account acct a/c member',
  delivery:
    'deliver despatch dispatch ship liefer lever livraison bl= entrega albaran consegn ddt= bolla dostaw wz= dodac dodan toimitus følge pakbon packing remessa guia= ticket consignment waybill load',
  quote: 'quot offer offert angebot devis presupuest preventiv oferta tarjous nabidk tilbud orcament estimate',
  due: 'due= payable pay= paid payment fallig zahlbar zahlen zahlung ziel= frist verval betaal betal echeance payer reglem venc scad pagar pagament pago= płatn zapłat termin splatn erap maksu maksett forfal settle remit uiterlijk spatestens entro innen collect deadline fristgerecht avant= vor= før= antes= latest ultimo',
  date: 'date dt= dato= datum dat= fecha data= paiva pvm= issued ausgestellt emis emitid wystaw vystav udstedt fakturadat rechnungsdat factuurdat point made= raised',
  period:
    'period zeitraum okres obdobi kausi leistungs prestation verricht uitgevoerd sprzed zdan udført service= from= until= bis= tot= week ending',
  tax: 'vat= v.a.t btw= mwst ust= ustid tva= iva= nif= cif= nip= moms mva= gst abn= ein= ico= dic= dph= ytunnus alv= cvr= orgn kvk= siret siren steuer tax= taxid ptu= cnpj nipc contribuint hst= sales',
  bank: 'iban bic= swift bank sort= sortcode konto kontonr rekening compte cuenta conto= rachun ucet tili= kto= blz= routing aba= giro bankgiro plusgiro bacs',
  contract: 'contract vertrag contrat umow smlouv sopimus avtal aftal project projekt projet job= site= bouw werk= werf',
  phone: 'tel= phone fax= telefon telefono puh= tlf= mobil gsm= mob= email mail= www',
  total:
    'total totaal gesamt summe endbetrag rechnungsbetrag totale suma razem ogolem celkem yhteensa sum= ialt= sammen totalt altogether zahlbetrag tebetalen voldoen betales aapagar pagar balance',
  net: 'net= nett= netto ht= exkl excl before= subtot zwischensumme tussentotaal sous imponib base= basis veroton bez= zaklad liquid goods warenwert fees',
  gross: 'gross brutto ttc= inkl incl including toplam total payable',
  quantity:
    'qty quant menge anz= anzahl aantal qte= cant ilosc mnozstv maara kpl= antal antall mangde stk hours stunden uren= heures horas ore= godz tunni timer= timmar units pieces stuck hrs= number dagen days= kilo kg= tonne tons= litre liter weight= gewicht poids peso',
  price:
    'price preis prijs prix pu= p.u precio prezz cena= hinta pris= preco rate= unit einzel each satz= tarief tarif stawk epreis stuckpreis unitario unitaire',
  amount: 'amount betrag bedrag montant import wartosc kwota castk summa belop beløb valor value cost= charge= sum= line=',
  description:
    'descri beschreib bezeichn omschrijv designa libell concept opis= nazwa popis nazev kuvaus nimik beskriv benamn betegn item= detail particul work= text= tekst product produkt leistung tuote goods articulo what',
  code: 'code= item= article artikel art= artnr sku= part= kod= codig codic indeks tuotenro varen pos= position cod= stock catalog cat= line=',
  discount: 'disc rabat rabatt korting remise descuent dto= scont sc= upust sleva alennus descont less= allowance rebate kortet',
  charge:
    'charge= supplement insur environment energy freight carriage deliver shipping post fracht versand porto port= frais vracht verzend transport portes spese trasport doprav rahti frakt fragt surcharg zuschlag toeslag levy handling fuel packing verpack emball deposit pfand statiegeld consigne',
  carried:
    'carried brought forward ubertrag report= reporter overbreng transport sigue riport siirto prenes przenies overfør continued vervolg',
  other:
    'statement kontoauszug reminder mahn herinner rappel sollecit remittance proforma pro-forma timesheet availab renewal aviso avis= zahlungserinnerung estimate confirmation bestatig',
  page: 'page seite pagina sheet blad= side= sivu strona strana sida folio',
  people: 'attn attention contact handler sachbearbeiter contactpersoon ref= osoba ansprech kontakt tav= t.a.v zhd',
} as const;

/** What a word may speak of. */
export type Said = keyof typeof said;

const whole = new Map<string, Said[]>(),
  begun = new Map<string, Said[]>();
for (const [what, words] of Object.entries(said) as [Said, string][])
  for (const word of words.split(' ')) {
    const exact = word.endsWith('=');
    const [to, key] = [exact ? whole : begun, plainWord(exact ? word.slice(0, -1) : word)];
    to.set(key, [...(to.get(key) ?? []), what]);
  }
const longest = Math.max(...[...begun.keys()].map((k) => k.length));

const known = new Map<string, readonly Said[]>();

/** All that a word as `plainWord` gives it speaks of. */
export function speaksOf(plain: string): readonly Said[] {
  let found = known.get(plain);
  if (found) return found;
  const all = new Set<Said>(whole.get(plain));
  for (let n = 2; n <= Math.min(longest, plain.length); n++) for (const what of begun.get(plain.slice(0, n)) ?? []) all.add(what);
  if (known.size > 20_000) known.clear();
  known.set(plain, (found = [...all]));
  return found;
}
