import type { Lexicon } from './types.ts';

export const de: Lexicon = {
  fields: {
    invoiceNumber: ['rechnungsnummer', 'rechnungs nr', 'rechnungsnr', 'rechnung nr', 're nr', 'belegnummer', 'beleg nr', '?rechnung'],
    creditNumber: ['gutschriftsnummer', 'gutschrift nr', 'gutschriftsnr', '?gutschrift'],
    issueDate: ['rechnungsdatum', 'belegdatum', 'ausstellungsdatum', 'gutschriftsdatum', '?datum'],
    dueDate: ['falligkeitsdatum', 'fallig am', 'zahlbar bis', 'zahlungsziel', '?fallig'],
    purchaseOrder: ['bestellnummer', 'bestell nr', 'ihre bestellung', 'ihre bestellnummer', 'auftragsnummer', '?ihr zeichen', '?ihre referenz', '?bestellung'],
    terms: ['zahlungsbedingungen', 'zahlungsbedingung'], currency: ['wahrung'],
    taxId: ['ust idnr', 'ust id nr', 'ustidnr', 'ust id', 'umsatzsteuer identifikationsnummer', 'steuernummer', 'ust nr'],
    billTo: ['rechnung an', 'rechnungsadresse', 'rechnungsempfanger'], deliverTo: ['lieferadresse', 'lieferanschrift'],
    otherDate: ['lieferdatum', 'leistungsdatum', 'bestelldatum'], otherReference: ['kundennummer', 'kunden nr', 'lieferschein', 'lieferschein nr', 'auftrag', 'seite'],
  },
  columns: {
    code: ['artikel nr', 'artikelnummer', 'art nr', 'artikelnr', 'best nr'], position: ['pos', 'position'],
    description: ['beschreibung', 'bezeichnung', 'artikelbezeichnung', 'artikel', 'leistung', 'text'], quantity: ['menge', 'anzahl', 'stunden', 'stuck'],
    unit: ['einheit', 'me', 'einh'], unitPrice: ['einzelpreis', 'preis', 'e preis', 'ep', 'stuckpreis', 'einzelpreis netto'], discount: ['rabatt', 'rabatt %'],
    taxRate: ['mwst', 'ust', 'mwst %', 'ust %', 'steuersatz'], amount: ['betrag', 'gesamtpreis', 'gesamt', 'summe', 'gp', 'nettobetrag', 'gesamtbetrag'], date: ['datum', 'zeitraum'],
  },
  totals: {
    goods: ['zwischensumme', 'warenwert', 'summe positionen'], net: ['nettobetrag', 'netto', 'summe netto', 'gesamt netto', 'nettosumme', 'rechnungsbetrag netto'],
    tax: ['mwst', 'ust', 'umsatzsteuer', 'mehrwertsteuer', 'zzgl mwst', 'zzgl ust', 'enthaltene mwst'],
    gross: ['gesamtbetrag', 'rechnungsbetrag', 'bruttobetrag', 'zu zahlen', 'zahlbetrag', 'endbetrag', 'gesamtsumme', 'summe brutto', 'gesamt brutto', 'gutschriftsbetrag'],
    charge: ['fracht', 'versand', 'versandkosten', 'verpackung', 'porto', 'mindermengenzuschlag'], discount: ['rabatt', 'abzgl rabatt', 'nachlass'],
    deposit: ['anzahlung', 'bereits gezahlt'], carried: ['ubertrag'], balance: ['saldo'],
  },
  kinds: { invoice: ['rechnung'], creditNote: ['gutschrift', 'rechnungskorrektur'], other: ['lieferschein', 'angebot', 'kontoauszug', 'mahnung', 'auftragsbestatigung', 'allgemeine geschaftsbedingungen'] },
};

export const fr: Lexicon = {
  fields: {
    invoiceNumber: ['numero de facture', 'facture no', 'facture n', 'facture n°', 'n° de facture', 'n° facture', 'no facture', 'facture numero', '?facture'],
    creditNumber: ['numero avoir', 'avoir n°', 'avoir no', 'avoir numero', '?avoir'],
    issueDate: ['date de facture', 'date facture', 'date de la facture', 'date emission', "date d'emission", 'date de facturation'],
    dueDate: ['echeance', "date d'echeance", 'date decheance', 'date echeance', 'a payer avant le', 'payable le', 'date limite de paiement'],
    purchaseOrder: ['commande', 'bon de commande', 'numero de commande', 'n° de commande', 'votre commande', 'n° commande', '?votre reference', '?votre ref'],
    terms: ['conditions de paiement', 'modalites de paiement', 'reglement'], currency: ['devise'],
    taxId: ['n° tva', 'tva intracommunautaire', 'numero de tva', 'n° tva intracommunautaire', 'no tva', 'tva intra'],
    billTo: ['facture a', 'facturer a', 'adresse de facturation', 'client'], deliverTo: ['livrer a', 'adresse de livraison', 'livraison'],
    otherDate: ['date de livraison', 'date de commande'], otherReference: ['n° client', 'code client', 'numero client', 'bon de livraison', 'siret', 'siren', 'page'],
  },
  columns: {
    code: ['reference', 'ref', 'code article', 'article'], description: ['designation', 'description', 'libelle', 'prestation'], quantity: ['quantite', 'qte', 'nombre', 'heures'],
    unit: ['unite'], unitPrice: ['prix unitaire', 'pu', 'pu ht', 'prix unitaire ht', 'p u', 'p u ht', 'prix', 'prix ht'], discount: ['remise', 'remise %'],
    taxRate: ['tva', 'taux tva', 'tva %', 'taux'], amount: ['montant', 'montant ht', 'total ht', 'total', 'prix total'], date: ['date', 'periode'],
  },
  totals: {
    goods: ['sous total', 'total marchandises', 'total articles'], net: ['total ht', 'montant ht', 'total hors taxes', 'net ht', 'total net ht', 'base ht'],
    tax: ['tva', 'montant tva', 'total tva', 'dont tva'], gross: ['total ttc', 'montant ttc', 'net a payer', 'total a payer', 'a payer', 'montant total', 'total avoir', 'net a votre credit'],
    charge: ['port', 'frais de port', 'transport', 'emballage', 'livraison'], discount: ['remise', 'rabais'], deposit: ['acompte', 'deja regle'], carried: ['report', 'a reporter'], balance: ['solde'],
  },
  kinds: { invoice: ['facture'], creditNote: ['avoir', 'facture d avoir'], other: ['bon de livraison', 'devis', 'releve de compte', 'conditions generales', 'relance'] },
};

export const nl: Lexicon = {
  fields: {
    invoiceNumber: ['factuurnummer', 'factuurnr', 'factuur nr', 'factuur nummer', '?factuur'], creditNumber: ['creditnotanummer', 'creditnota nr', 'creditnummer', '?creditnota'],
    issueDate: ['factuurdatum', 'creditdatum', '?datum'], dueDate: ['vervaldatum', 'vervaldag', 'te betalen voor', 'uiterste betaaldatum'],
    purchaseOrder: ['uw bestelnummer', 'bestelnummer', 'uw ordernummer', 'ordernummer', 'uw order', '?uw referentie', '?uw ref'], terms: ['betalingscondities', 'betalingsvoorwaarden', 'betalingstermijn'], currency: ['valuta'],
    taxId: ['btw nr', 'btwnr', 'btw nummer', 'btw id', 'btw'], billTo: ['factuuradres', 'factuur aan'], deliverTo: ['afleveradres', 'leveradres'],
    otherDate: ['leverdatum', 'besteldatum', 'afleverdatum'], otherReference: ['debiteur', 'debiteurnummer', 'klantnummer', 'kvk', 'kvk nr', 'pakbon', 'pag', 'pagina', 'onze ref'],
  },
  columns: {
    code: ['artnr', 'art nr', 'artikelnr', 'artikel', 'artikelnummer', 'code'], description: ['omschrijving', 'artikelomschrijving', 'product'], quantity: ['aantal', 'uren', 'hoeveelheid'],
    unit: ['eenheid', 'eenh'], per: ['per'], unitPrice: ['prijs', 'stukprijs', 'eenheidsprijs', 'tarief'], discount: ['korting', 'korting %'], taxRate: ['btw', 'btw %', 'btw tarief'], amount: ['bedrag', 'totaal', 'totaalbedrag', 'netto bedrag'], date: ['datum', 'periode'],
  },
  totals: {
    goods: ['subtotaal', 'subtotaal goederen', 'goederen', 'totaal goederen'], net: ['totaal excl btw', 'netto', 'totaal exclusief btw', 'netto bedrag', 'bedrag excl btw', 'totaal netto'],
    tax: ['btw', 'btw bedrag', 'totaal btw', 'waarvan btw'], gross: ['te betalen', 'totaal incl btw', 'totaal te betalen', 'totaalbedrag', 'factuurbedrag', 'totaal', 'totaal te ontvangen', 'te ontvangen', 'totaal credit'],
    charge: ['vracht', 'verzendkosten', 'transport', 'verpakking', 'porto', 'orderkosten'], discount: ['korting', 'kwantumkorting', 'relatiekorting'], deposit: ['aanbetaling', 'reeds betaald'], carried: ['transporteren', 'transport vorige pagina'], balance: ['saldo'],
  },
  kinds: { invoice: ['factuur'], creditNote: ['creditnota', 'creditfactuur'], other: ['pakbon', 'offerte', 'rekeningoverzicht', 'aanmaning', 'orderbevestiging', 'algemene voorwaarden'] },
};

export const es: Lexicon = {
  fields: {
    invoiceNumber: ['numero de factura', 'n° de factura', 'no de factura', 'n° factura', 'factura n°', 'factura no', '?factura'], creditNumber: ['nota de credito n°', 'abono n°'],
    issueDate: ['fecha de factura', 'fecha factura', 'fecha de emision', '?fecha'], dueDate: ['fecha de vencimiento', 'vencimiento', 'pagar antes de'],
    purchaseOrder: ['pedido', 'numero de pedido', 'n° de pedido', 'su pedido', 'orden de compra', '?su referencia'], terms: ['condiciones de pago', 'forma de pago'], currency: ['moneda', 'divisa'],
    taxId: ['nif', 'cif', 'nif iva', 'n° iva'], billTo: ['facturar a', 'cliente'], deliverTo: ['entregar en', 'direccion de entrega'], otherDate: ['fecha de entrega', 'fecha de pedido'], otherReference: ['n° cliente', 'albaran', 'pagina'],
  },
  columns: { code: ['codigo', 'referencia', 'ref'], description: ['descripcion', 'concepto', 'articulo'], quantity: ['cantidad', 'cant', 'unidades', 'horas'], unit: ['unidad', 'ud'], unitPrice: ['precio', 'precio unitario', 'p unitario'], discount: ['dto', 'descuento', 'dto %'], taxRate: ['iva', 'iva %', '% iva'], amount: ['importe', 'total', 'importe total'], date: ['fecha', 'periodo'] },
  totals: { goods: ['subtotal', 'suma'], net: ['base imponible', 'total neto', 'importe neto', 'total sin iva'], tax: ['iva', 'cuota iva', 'total iva'], gross: ['total factura', 'total a pagar', 'importe total', 'total con iva', 'total abono'], charge: ['portes', 'transporte', 'gastos de envio', 'embalaje'], discount: ['descuento'], deposit: ['anticipo', 'pagado'], carried: ['suma y sigue'], balance: ['saldo'] },
  kinds: { invoice: ['factura'], creditNote: ['nota de credito', 'factura rectificativa', 'abono'], other: ['albaran', 'presupuesto', 'extracto de cuenta', 'condiciones generales'] },
};

export const it: Lexicon = {
  fields: {
    invoiceNumber: ['numero fattura', 'fattura n', 'fattura n°', 'fattura numero', 'n fattura', '?fattura'], creditNumber: ['nota di credito n', 'nota di credito numero'],
    issueDate: ['data fattura', 'data documento', 'data emissione', '?data'], dueDate: ['scadenza', 'data scadenza', 'data di scadenza'],
    purchaseOrder: ['ordine', 'numero ordine', 'vostro ordine', 'ordine n', 'ordine di acquisto', '?vs riferimento', '?vostro riferimento'], terms: ['condizioni di pagamento', 'pagamento'], currency: ['valuta'],
    taxId: ['partita iva', 'p iva', 'piva', 'codice fiscale'], billTo: ['fatturare a', 'spettabile', 'cliente', 'destinatario'], deliverTo: ['luogo di consegna', 'destinazione merce'], otherDate: ['data consegna', 'data ordine'], otherReference: ['codice cliente', 'ddt', 'pagina'],
  },
  columns: { code: ['codice', 'cod', 'articolo'], description: ['descrizione'], quantity: ['quantita', 'qta', 'ore'], unit: ['um', 'unita'], unitPrice: ['prezzo', 'prezzo unitario', 'prezzo unit'], discount: ['sconto', 'sconto %', 'sc %'], taxRate: ['iva', 'iva %', 'aliquota'], amount: ['importo', 'totale', 'importo netto'], date: ['data', 'periodo'] },
  totals: { goods: ['totale merce', 'subtotale'], net: ['imponibile', 'totale imponibile', 'totale netto'], tax: ['iva', 'totale iva', 'imposta', 'totale imposta'], gross: ['totale fattura', 'totale documento', 'totale da pagare', 'netto a pagare', 'totale'], charge: ['trasporto', 'spese di trasporto', 'spese di spedizione', 'imballo'], discount: ['sconto'], deposit: ['acconto'], carried: ['a riportare', 'riporto'], balance: ['saldo'] },
  kinds: { invoice: ['fattura'], creditNote: ['nota di credito'], other: ['preventivo', 'estratto conto', 'documento di trasporto', 'condizioni generali'] },
};

export const sv: Lexicon = {
  fields: {
    invoiceNumber: ['fakturanummer', 'fakturanr', 'faktura nr', 'faktura nummer', '?faktura'], creditNumber: ['kreditfaktura nr', 'kreditnota nr', 'kreditnummer'],
    issueDate: ['fakturadatum', 'datum', 'kreditdatum'], dueDate: ['forfallodatum', 'forfallodag', 'betalas senast', 'oss tillhanda senast'],
    purchaseOrder: ['ert ordernummer', 'ert ordernr', 'ordernummer', 'inkopsorder', 'bestallningsnummer', '?er referens'], terms: ['betalningsvillkor'], currency: ['valuta'],
    taxId: ['momsregnr', 'vat nr', 'momsregistreringsnummer', 'org nr', 'organisationsnummer'], billTo: ['faktureras till', 'fakturaadress', 'kund'], deliverTo: ['leveransadress'], otherDate: ['leveransdatum', 'orderdatum'], otherReference: ['kundnummer', 'kundnr', 'bankgiro', 'ocr', 'sida'],
  },
  columns: { code: ['artikelnr', 'artnr', 'artikelnummer', 'art nr'], description: ['beskrivning', 'benamning', 'artikel', 'specifikation'], quantity: ['antal', 'kvantitet', 'timmar'], unit: ['enhet'], unitPrice: ['pris', 'a pris', 'apris', 'enhetspris', 'styckpris'], discount: ['rabatt', 'rabatt %'], taxRate: ['moms', 'moms %'], amount: ['belopp', 'summa', 'totalt'], date: ['datum', 'period'] },
  totals: { goods: ['delsumma', 'varuvarde'], net: ['netto', 'summa exkl moms', 'belopp exkl moms', 'totalt exkl moms'], tax: ['moms', 'momsbelopp', 'varav moms'], gross: ['att betala', 'summa att betala', 'totalt inkl moms', 'totalbelopp', 'summa inkl moms', 'att erhalla'], charge: ['frakt', 'fraktkostnad', 'expeditionsavgift', 'emballage'], discount: ['rabatt'], deposit: ['forskott'], carried: ['transport'], balance: ['saldo'] },
  kinds: { invoice: ['faktura'], creditNote: ['kreditfaktura', 'kreditnota'], other: ['foljesedel', 'offert', 'kontoutdrag', 'orderbekraftelse', 'paminnelse'] },
};
