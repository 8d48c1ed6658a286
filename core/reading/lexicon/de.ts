import type { Lexicon } from './types.ts';

export const de: Lexicon = {
  fields: {
    invoiceNumber: ['rechnungs #', 'rechnung #', 're #', 'beleg #', 'rechnungs id', 'unsere rechnung', 'unsere rechnung #', 'dokument #', 'rg #', 'fakturen #', 'faktura #', '?rechnung', '?dokument'],
    creditNumber: ['gutschrifts #', 'gutschrift #', 'gutschriften #', 'rechnungskorrektur #', 'korrekturrechnung #', 'storno #', 'stornorechnung #', '?gutschrift'],
    issueDate: ['rechnungsdatum', 'rechnung vom', 'belegdatum', 'ausstellungsdatum', 'gutschriftsdatum', 'datum der rechnung', 're datum', '?datum', '?vom'],
    dueDate: ['falligkeitsdatum', 'fallig am', 'falligkeit', 'fallig bis', 'zahlbar bis', 'zahlbar bis zum', 'zahlungsziel', 'zahlung bis', 'zu zahlen bis', 'zahlungstermin', '?fallig'],
    purchaseOrder: ['bestell #', 'ihre bestellung', 'ihre bestell #', 'ihre bestellung #', 'kundenbestell #', 'auftrags #', 'bestellung #', 'ihr auftrag', 'ihre auftrags #', 'kundenauftrag', '?ihr zeichen', '?ihre referenz', '?bestellung'],
    terms: ['zahlungsbedingungen', 'zahlungsbedingung', 'zahlungskonditionen', 'zahlungsweise', 'zahlungsart'], currency: ['wahrung'],
    taxId: ['ust id #', 'ust id', 'ustid', 'ustid #', 'ust #', 'umsatzsteuer id', 'umsatzsteuer id #', 'umsatzsteuer identifikations #', 'umsatzsteueridentifikations #', 'mwst #', 'steuer #', 'uid', 'uid #', 'vat id'],
    buyerTaxId: ['ihre ust id #', 'ihre ust id'],
    billTo: ['rechnung an', 'rechnungsadresse', 'rechnungsempfanger', 'rechnungsanschrift', 'kunde', 'auftraggeber', 'leistungsempfanger'], deliverTo: ['lieferadresse', 'lieferanschrift', 'lieferung an', 'warenempfanger', 'leistungsort'],
    otherDate: ['lieferdatum', 'leistungsdatum', 'bestelldatum', 'auftragsdatum', 'versanddatum', 'druckdatum', 'leistungszeitraum', 'liefertermin', 'geliefert am'],
    otherReference: ['kunden #', 'kd #', 'kundennr', 'debitoren #', 'lieferschein', 'lieferschein #', 'auftrag', 'auftrag #', 'unser zeichen', 'unsere referenz', 'projekt', 'projekt #', 'vertrag', 'vertrags #', 'seite', 'konto #', 'ansprechpartner', 'sachbearbeiter', 'lieferanten #', 'zu rechnung', 'zur rechnung', 'ursprungsrechnung', 'hrb', 'blz'],
  },
  columns: {
    code: ['artikel #', 'art #', 'artikelnr', 'best #', 'material #', 'produkt #', 'teile #', 'art code', 'sach #'], position: ['pos', 'position', 'lfd #', 'zeile'],
    description: ['beschreibung', 'bezeichnung', 'artikelbezeichnung', 'artikelbeschreibung', 'artikel', 'leistung', 'leistungen', 'text', 'produkt', 'ware', 'warenbezeichnung', 'produktbezeichnung', 'tatigkeit', 'bezeichnung der leistung'],
    quantity: ['menge', 'anzahl', 'stunden', 'stuck', 'stk', 'std', 'liefermenge', 'geliefert'], otherQuantity: ['bestellt', 'bestellmenge', 'rest', 'ruckstand'],
    unit: ['einheit', 'me', 'einh', 'mengeneinheit'], per: ['pe', 'preiseinheit', 'je'],
    unitPrice: ['einzelpreis', 'preis', 'e preis', 'epreis', 'ep', 'stuckpreis', 'einzelpreis netto', 'preis einheit', 'preis je einheit', 'preis pro einheit', 'einheitspreis', 'nettopreis', 'stundensatz', 'satz', 'vk preis', 'preis eur', 'einzel'],
    discount: ['rabatt', 'rabatt %', 'rab', 'rab %', 'nachlass', 'nachlass %'],
    taxRate: ['mwst', 'ust', 'mwst %', 'ust %', 'steuersatz', 'mwst satz', 'ust satz', 'steuer', 'st', 'steuer %', 'steuercode'], taxAmount: ['mwst betrag', 'ust betrag', 'steuerbetrag'],
    amount: ['betrag', 'gesamtpreis', 'gesamt', 'summe', 'gp', 'nettobetrag', 'gesamtbetrag', 'wert', 'positionsbetrag', 'gesamt netto', 'netto', 'betrag netto', 'gesamtpreis netto', 'gpreis', 'g preis', 'warenwert', 'zeilensumme'],
    grossAmount: ['gesamt brutto', 'bruttobetrag', 'brutto', 'betrag brutto'], date: ['datum', 'zeitraum', 'leistungsdatum', 'lieferdatum'],
  },
  totals: {
    goods: ['zwischensumme', 'warenwert', 'summe positionen', 'summe der positionen', 'positionen gesamt', 'warenwert netto', 'summe waren', 'nettowarenwert'],
    net: ['nettobetrag', 'netto', 'summe netto', 'gesamt netto', 'nettosumme', 'rechnungsbetrag netto', 'gesamtbetrag netto', 'netto gesamt', 'nettogesamtbetrag', 'total netto', 'entgelt', 'gesamtsumme netto', 'summe ohne mwst', 'betrag netto', 'nettorechnungsbetrag', 'steuerbasis', 'bemessungsgrundlage'],
    tax: ['mwst', 'ust', 'umsatzsteuer', 'mehrwertsteuer', 'zzgl mwst', 'zzgl ust', 'enthaltene mwst', 'enthaltene ust', 'mwst betrag', 'ust betrag', 'steuerbetrag', 'steuer', 'zzgl umsatzsteuer', 'inkl mwst', 'darin enthaltene mwst', 'mwst gesamt', 'gesetzliche mwst'],
    gross: ['gesamtbetrag', 'rechnungsbetrag', 'bruttobetrag', 'zu zahlen', 'zahlbetrag', 'endbetrag', 'gesamtsumme', 'summe brutto', 'gesamt brutto', 'gutschriftsbetrag', 'rechnungssumme', 'gesamt', 'total', 'rechnungstotal', 'betrag zu ihren gunsten', 'gesamtbetrag brutto', 'rechnungsbetrag brutto', 'zu zahlender betrag', 'endsumme', 'brutto', 'summe', 'gesamtgutschrift', 'zahlungsbetrag', 'rechnungsendbetrag', 'summe inkl mwst', 'total inkl mwst'],
    charge: ['fracht', 'versand', 'versandkosten', 'verpackung', 'porto', 'mindermengenzuschlag', 'frachtkosten', 'lieferkosten', 'transportkosten', 'lieferung', 'versandpauschale', 'zuschlag', 'fahrtkosten', 'anfahrt', 'energiezuschlag', 'maut'],
    discount: ['rabatt', 'abzgl rabatt', 'nachlass', 'abzuglich rabatt', 'abzgl nachlass', 'gesamtrabatt', 'kundenrabatt', 'sonderrabatt'],
    deposit: ['anzahlung', 'bereits gezahlt', 'abzgl anzahlung', 'abzuglich anzahlung', 'geleistete anzahlung', 'bereits bezahlt', 'vorauszahlung', 'abschlagszahlung', 'erhaltene anzahlung'],
    carried: ['ubertrag', 'zwischensumme ubertrag', 'ubertrag von seite', 'ubertrag auf seite'], balance: ['saldo', 'restbetrag', 'noch zu zahlen', 'offener betrag', 'restzahlung', 'verbleibender betrag', 'restsumme', 'alter saldo', 'offener restbetrag'],
  },
  kinds: {
    invoice: ['rechnung', 'rechnungs #', 'sammelrechnung', 'teilrechnung', 'schlussrechnung', 'faktura'], creditNote: ['gutschrift', 'rechnungskorrektur', 'stornorechnung', 'korrekturrechnung', 'gutschrift #'],
    other: ['lieferschein', 'angebot', 'kontoauszug', 'mahnung', 'auftragsbestatigung', 'allgemeine geschaftsbedingungen', 'zahlungserinnerung', 'proformarechnung', 'bestellung', 'kostenvoranschlag', 'packliste', 'bestellbestatigung', 'geschaftsbedingungen', 'agb'],
  },
  units: 'st stk stck stuck std tag tage woche wochen monat monate',
};
