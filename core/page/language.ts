/** Languages that documents are written in, as ISO 639-2 codes. */
export const languages = ['eng', 'deu', 'fra', 'nld', 'spa', 'ita', 'swe'] as const;
export type Language = (typeof languages)[number];

/** Words that stand on many documents of a language and on few of another. Without accents, which a reader in another language loses. */
const telling: Record<Language, string> = {
  eng: 'the of and to for with invoice date your from terms payment due number order amount total please account bank days unit price each description code net',
  deu: 'der die das des und fur mit rechnung datum kunden zahlbar betrag menge preis gesamt mwst steuer bestellung lieferung ihre bitte zahlung tage netto konto einzelpreis',
  fra: 'le la les du des et de en pour facture client montant prix quantite total ttc tva commande livraison votre paiement jours echeance designation unitaire siret',
  nld: 'de het een van en voor met factuur datum klant bedrag aantal prijs totaal btw bestelling levering uw betaling dagen omschrijving stuks rekening vervaldatum',
  spa: 'el los las del y de en la para con factura fecha cliente importe cantidad precio total iva pedido entrega su pago dias vencimiento descripcion base imponible',
  ita: 'il gli della del e la le per con fattura data cliente importo quantita prezzo totale iva ordine consegna vostro pagamento giorni scadenza descrizione imponibile',
  swe: 'och av de till for med faktura datum kund belopp antal pris summa moms bestallning leverans er betalning dagar forfallodatum beskrivning ordernummer att betala',
};
/** How a document names itself and its dates in one language alone: alone, or in longer words such as "Rechnungsnummer". */
const trade: Record<Language, RegExp> = {
  eng: /invoice|remittance|creditnote/,
  deu: /rechnung|gutschrift|lieferschein|bestellnummer|bestelldatum|kundennummer|umsatzsteuer|fallig/,
  fra: /facture$|factures$|facturation|echeance|reglement|livraison|acheteur/,
  nld: /factuur|creditnota|bestelnummer|vervaldatum|klantnummer|omschrijving|betaal/,
  spa: /^factura$|^abono|^pedido|^fecha|vencimiento|^importe/,
  ita: /fattura|scadenza|consegna|pagamento|^notadicredito/,
  swe: /faktura|kreditnota|forfallo|bestallning|leverans|betalning|tillhanda/,
};
const lists = languages.map((language) => ({ language, words: new Set(telling[language].split(' ')), trade: trade[language] }));
const bare = (word: string): string =>
  word
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/[^a-z]/g, '');

/** The language of a country whose account and tax numbers begin like this; countries of several languages tell none. */
const spoken: Record<string, Language> = {
  GB: 'eng',
  IE: 'eng',
  DE: 'deu',
  AT: 'deu',
  FR: 'fra',
  NL: 'nld',
  ES: 'spa',
  IT: 'ita',
  SE: 'swe',
};
const numbered = /^(?:IBAN:?)?(GB|IE|DE|AT|FR|NL|ES|IT|SE)[A-Z]?\d{2}/;

/**
 * How much the words tell for each language, most first: small words and the trade's words one, those that only one language has two.
 * A word that is on every line of a table counts twice at most.
 */
function weigh(words: string[]): { language: Language; n: number }[] {
  const times = new Map<string, number>();
  for (const w of words) if (!/\d/.test(w)) times.set(bare(w), (times.get(bare(w)) ?? 0) + 1);
  return lists
    .map(({ language, words: known, trade: own }) => ({
      language,
      n: [...times].reduce((n, [w, t]) => n + Math.min(t, 2) * (own.test(w) ? 2 : known.has(w) ? 1 : 0), 0),
    }))
    .sort((a, b) => b.n - a.n);
}

/** The language that most of the telling words on a page belong to; null where too few do, or two are as likely. */
export function languageOf(words: string[]): Language | null {
  const [first, second] = weigh(words) as [{ language: Language; n: number }, { n: number }];
  return first.n >= 4 && first.n > second.n * 1.25 ? first.language : null;
}

/** The language that a few words make likely, or the country of an account or tax number among them; null where they say nothing. */
export function likelyLanguage(words: string[]): Language | null {
  const [first, second] = weigh(words) as [{ language: Language; n: number }, { n: number }];
  if (first.n >= 2 && first.n > second.n) return first.language;
  const country = words.map((w) => numbered.exec(w)?.[1]).find((c) => c);
  return country ? spoken[country]! : null;
}
