import type { Lexicon } from './types.ts';

export const nl: Lexicon = {
  fields: {
    invoiceNumber: ['factuur #', 'onze factuur', 'documentnummer', 'document #', 'fact #', 'faktuur #', 'factuurkenmerk', '?factuur', '?factuurref'], creditNumber: ['creditnota #', 'credit #', 'creditfactuur #', 'creditfactuur', 'creditnota', '?creditnota'],
    issueDate: ['factuurdatum', 'creditdatum', 'datum factuur', 'datum creditnota', 'documentdatum', 'creditnotadatum', 'faktuurdatum', '?datum'], dueDate: ['vervaldatum', 'vervaldag', 'te betalen voor', 'uiterste betaaldatum', 'betalen voor', 'vervalt op', 'betaaldatum', 'te voldoen voor', 'betaling voor', 'te betalen uiterlijk', 'betalen uiterlijk', 'uiterlijk te betalen', 'uiterlijk'],
    purchaseOrder: ['uw bestel #', 'bestel #', 'uw order #', 'order #', 'uw order', 'uw bestelling', 'inkooporder', 'inkooporder #', 'uw inkooporder', 'uw inkooporder #', 'bestelling #', 'uw opdracht', 'uw opdracht #', 'klantorder', '?uw referentie', '?uw ref', '?uw kenmerk', '?bestelling'],
    terms: ['betalingscondities', 'betalingsvoorwaarden', 'betalingstermijn', 'betalingsconditie', 'betaling', 'betaaltermijn', 'betalingswijze', 'betalingsvoorwaarde'], currency: ['valuta', 'munt'],
    taxId: ['btw #', 'btw id', 'btw id #', 'btw identificatie #', 'btwid', 'btw', 'ons btw #', 'btw be'],
    buyerTaxId: ['uw btw #'],
    billTo: ['factuuradres', 'factuur aan', 'factureren aan', 'gefactureerd aan', 'klant', 'debiteur naam', 'opdrachtgever', 'geadresseerde'], deliverTo: ['afleveradres', 'leveradres', 'leveren aan', 'aflevering', 'bezorgadres', 'geleverd aan', 'werkadres'],
    otherDate: ['leverdatum', 'besteldatum', 'afleverdatum', 'orderdatum', 'geleverd op', 'verzenddatum', 'printdatum', 'uitvoerdatum', 'periode', 'leveringsdatum', 'datum levering'],
    otherReference: ['debiteur', 'debiteur #', 'debiteuren #', 'klant #', 'klantcode', 'relatie #', 'relatiecode', 'kvk', 'kvk #', 'pakbon', 'pakbon #', 'pag', 'pagina', 'onze ref', 'onze referentie', 'ons kenmerk', 'ons order #', 'onze order', 'onze order #', 'leverbon', 'leverbon #', 'werkbon', 'werkbon #', 'project', 'project #', 'vracht #', 'contract #', 'contactpersoon', 'ordernummer ons', 'vertegenwoordiger', 'op factuur', 'betreft factuur', 'bankrekening', 'rekening #', 'verzendnota', 'behandeld door'],
  },
  columns: {
    code: ['art #', 'artikel #', 'artikel', 'code', 'artikelcode', 'artcode', 'product #', 'productcode', 'art'], position: ['pos', 'regel', 'nr'], description: ['omschrijving', 'artikelomschrijving', 'product', 'beschrijving', 'productomschrijving', 'werkzaamheden', 'dienst', 'benaming'],
    quantity: ['aantal', 'uren', 'hoeveelheid', 'geleverd', 'aant', 'stuks', 'dagen', 'hvh'], otherQuantity: ['besteld', 'backorder', 'nog te leveren', 'naleveren'],
    unit: ['eenheid', 'eenh', 'ehd', 'ee', 'eh'], per: ['per', 'prijs per'], unitPrice: ['prijs', 'stukprijs', 'eenheidsprijs', 'tarief', 'prijs per eenheid', 'prijs eenheid', 'prijs per stuk', 'nettoprijs', 'netto prijs', 'uurtarief', 'prijs excl btw', 'stuksprijs', 'prijs ex btw', 'bruto prijs', 'prijs st', 'prijs eur'],
    discount: ['korting', 'korting %', 'kort', 'krt', 'krt %', 'kort %', '% korting', 'kort ing'], taxRate: ['btw', 'btw %', 'btw tarief', 'btw code', '% btw', 'btw perc', 'btw pct'], taxAmount: ['btw bedrag'],
    amount: ['bedrag', 'totaal', 'totaalbedrag', 'netto bedrag', 'nettobedrag', 'regeltotaal', 'totaalprijs', 'totaal excl btw', 'bedrag excl btw', 'netto', 'waarde', 'totaal prijs', 'regelbedrag', 'totaal netto', 'bedrag netto', 'subtotaal'], grossAmount: ['bedrag incl btw', 'totaal incl btw', 'bruto bedrag'], date: ['datum', 'periode'],
  },
  totals: {
    goods: ['subtotaal', 'subtotaal goederen', 'goederen', 'totaal goederen', 'goederenbedrag', 'totaal artikelen', 'goederenwaarde', 'totaal regels'],
    net: ['totaal excl btw', 'netto', 'totaal exclusief btw', 'netto bedrag', 'nettobedrag', 'bedrag excl btw', 'totaal netto', 'totaal ex btw', 'totaalbedrag excl btw', 'bedrag exclusief btw', 'netto totaal', 'nettototaal', 'excl btw', 'exclusief btw', 'totaal zonder btw', 'grondslag', 'maatstaf van heffing', 'subtotaal excl btw', 'factuurbedrag excl btw', 'btw grondslag'],
    tax: ['btw', 'btw bedrag', 'totaal btw', 'waarvan btw', 'bedrag btw', 'btw totaal', 'inclusief btw', 'btw hoog', 'btw laag', 'omzetbelasting'],
    gross: ['te betalen', 'totaal incl btw', 'totaal te betalen', 'totaalbedrag', 'factuurbedrag', 'totaal', 'totaal te ontvangen', 'te ontvangen', 'totaal credit', 'totaal inclusief btw', 'totaalbedrag incl btw', 'te betalen bedrag', 'te voldoen', 'factuurtotaal', 'totaal factuur', 'eindtotaal', 'bedrag incl btw', 'creditbedrag', 'door u te betalen', 'bedrag te betalen', 'totaal eur', 'totaal generaal', 'te crediteren', 'eindbedrag'],
    charge: ['vracht', 'verzendkosten', 'transport', 'verpakking', 'porto', 'orderkosten', 'vrachtkosten', 'transportkosten', 'bezorgkosten', 'toeslag', 'brandstoftoeslag', 'administratiekosten', 'voorrijkosten', 'leveringskosten', 'kleine ordertoeslag', 'emballage', 'levering', 'orderkosten'],
    discount: ['korting', 'kwantumkorting', 'relatiekorting', 'af korting', 'totale korting', 'minus korting', 'klantkorting', 'betalingskorting', 'orderkorting', 'afkorting'], deposit: ['aanbetaling', 'reeds betaald', 'vooruitbetaald', 'af aanbetaling', 'reeds voldaan', 'voorschot', 'betaald', 'minus aanbetaling', 'al betaald'],
    carried: ['transporteren', 'transport vorige pagina', 'te transporteren', 'transport', 'overdracht', 'transport volgende pagina', 'over te brengen'], balance: ['saldo', 'restant', 'nog te betalen', 'restbedrag', 'openstaand', 'openstaand bedrag', 'openstaand saldo', 'nog te voldoen', 'resterend bedrag', 'resteert'],
  },
  kinds: {
    invoice: ['factuur', 'faktuur', 'verkoopfactuur', 'factuur #'], creditNote: ['creditnota', 'creditfactuur', 'creditnota #', 'credit factuur', 'credit nota'],
    other: ['pakbon', 'offerte', 'rekeningoverzicht', 'aanmaning', 'orderbevestiging', 'algemene voorwaarden', 'herinnering', 'betalingsherinnering', 'proforma factuur', 'proformafactuur', 'leverbon', 'inkooporder', 'prijsopgave', 'leveringsvoorwaarden', 'afleverbon', 'vrachtbrief', 'opdrachtbevestiging'],
  },
  units: 'stuk stuks uur uren dagen weken maanden',
};
