/** Languages that documents are written in, as ISO 639-2 codes. */
export const languages = ['eng', 'deu', 'fra', 'nld', 'spa', 'ita', 'swe'] as const;
export type Language = (typeof languages)[number];

/** Words that stand on many documents of a language and on few of another. Without accents, which a reader in another language loses. */
const telling: Record<Language, string> = {
  eng: 'the of and to for with invoice date your from terms payment due number order amount total please account bank days unit price each description code net',
  deu: 'der die das und fur mit rechnung datum kunden zahlbar betrag menge preis gesamt mwst steuer bestellung lieferung ihre bitte zahlung tage netto konto einzelpreis',
  fra: 'le la les du des et pour facture client montant prix quantite total ttc tva commande livraison votre paiement jours echeance designation unitaire siret',
  nld: 'de het een van en voor met factuur datum klant bedrag aantal prijs totaal btw bestelling levering uw betaling dagen omschrijving stuks rekening vervaldatum',
  spa: 'el los las del y para con factura fecha cliente importe cantidad precio total iva pedido entrega su pago dias vencimiento descripcion base imponible',
  ita: 'il gli della del e per con fattura data cliente importo quantita prezzo totale iva ordine consegna vostro pagamento giorni scadenza descrizione imponibile',
  swe: 'och av till for med faktura datum kund belopp antal pris summa moms bestallning leverans er betalning dagar forfallodatum beskrivning ordernummer att betala',
};
const lists = languages.map((language) => ({ language, words: new Set(telling[language].split(' ')) }));
const bare = (word: string): string =>
  word
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/[^a-z]/g, '');

/** The language that most of the telling words on a page belong to; null where too few do, or two are as likely. */
export function languageOf(words: string[]): Language | null {
  const plain = words.map(bare).filter((w) => w.length > 0);
  const counts = lists
    .map(({ language, words: known }) => ({ language, n: plain.filter((w) => known.has(w)).length }))
    .sort((a, b) => b.n - a.n);
  return counts[0]!.n >= 4 && counts[0]!.n > counts[1]!.n * 1.25 ? counts[0]!.language : null;
}
