import type { Lexicon } from './types.ts';

export const sv: Lexicon = {
  fields: {
    invoiceNumber: ['faktura #', 'fakturanummer', 'faktnr', 'fakt #', 'var faktura', 'dokument #', 'verifikations #', '?faktura'], creditNumber: ['kreditfaktura #', 'kreditnota #', 'kredit #', 'kreditfaktura', 'krediterings #', '?kreditnota'],
    issueDate: ['fakturadatum', 'kreditdatum', 'utskriftsdatum faktura', 'dokumentdatum', 'datum for faktura', 'fakt datum', '?datum'], dueDate: ['forfallodatum', 'forfallodag', 'betalas senast', 'oss tillhanda senast', 'oss tillhanda', 'forfaller', 'att betala senast', 'sista betalningsdag', 'betalas senast den', 'forfall', 'forfaller den', 'sista betalningsdatum', 'forf datum', 'betalningsdag', 'senast den', 'betala senast'],
    purchaseOrder: ['ert order #', 'ert inkopsorder #', 'er order', 'order #', 'inkopsorder', 'inkopsorder #', 'bestallnings #', 'er bestallning', 'ert bestallnings #', 'kundorder', 'er order #', 'kundens order #', 'inkopsordernr', 'ert inkopsordernr', 'ert ordernr', 'kundorder #', 'ert inkop #', 'kundens best #', 'er best', 'er best #', '?er referens', '?er ref', '?bestallning'],
    terms: ['betalningsvillkor', 'betalvillkor', 'bet villkor', 'betalningsvillk', 'betalning', 'betalningssatt'], currency: ['valuta'],
    taxId: ['momsreg #', 'vat #', 'momsregistrerings #', 'org #', 'organisations #', 'moms reg #', 'vat reg #', 'moms #', 'momsreg', 'vat', 'momsregistreringsnr', 'orgnr', 'momsnr'],
    buyerTaxId: ['ert momsreg #', 'ert vat #'],
    billTo: ['faktureras till', 'fakturaadress', 'kund', 'faktureras', 'fakturamottagare', 'faktura till', 'kopare', 'bestallare', 'mottagare'], deliverTo: ['leveransadress', 'godsadress', 'godsmottagare', 'levereras till', 'leverans till', 'lev adress', 'arbetsplats', 'leveransmottagare'],
    otherDate: ['leveransdatum', 'orderdatum', 'bestallningsdatum', 'levererad', 'lev datum', 'utskriftsdatum', 'levererat', 'leveransdag', 'utforandedatum', 'period', 'best datum', 'avsandningsdatum'],
    otherReference: ['kund #', 'kundnummer', 'bankgiro', 'bg', 'plusgiro', 'pg', 'ocr', 'ocr #', 'sida', 'sid', 'foljesedel', 'foljesedels #', 'foljesedel #', 'var referens', 'var ref', 'vart order #', 'var order', 'vart ordernr', 'projekt', 'projekt #', 'avtal', 'avtals #', 'godsmarkning', 'marke', 'kontonummer', 'konto #', 'saljare', 'avser faktura', 'till faktura', 'krediterar faktura', 'offert #', 'leveranssatt', 'drojsmalsranta', 'sate'],
  },
  columns: {
    code: ['artikel #', 'art #', 'artnr', 'produkt #', 'artkod', 'artikelkod', 'kod'], position: ['pos', 'rad', 'rad #'], description: ['beskrivning', 'benamning', 'artikel', 'specifikation', 'produkt', 'text', 'artikelbenamning', 'tjanst', 'produktbeskrivning', 'artikelbeskrivning', 'avser'], quantity: ['antal', 'kvantitet', 'timmar', 'mangd', 'lev antal', 'levererat', 'kvant', 'lev kvant', 'dagar'],
    otherQuantity: ['bestallt', 'best antal', 'rest', 'restnoterat', 'best'], unit: ['enhet', 'enh', 'sort'], per: ['per'], unitPrice: ['pris', 'a pris', 'apris', 'enhetspris', 'styckpris', 'pris per enhet', 'nettopris', 'pris enhet', 'timpris', 'pris exkl moms', 'a pris exkl moms', 'pris st', 'pris kr', 'arvode'], discount: ['rabatt', 'rabatt %', 'rab', 'rab %', '% rabatt', '% rab'],
    taxRate: ['moms', 'moms %', 'momssats', '% moms', 'momskod', 'moms sats', 'momssats %'], taxAmount: ['momsbelopp', 'moms kr'], amount: ['belopp', 'summa', 'totalt', 'radsumma', 'radbelopp', 'nettobelopp', 'total', 'belopp exkl moms', 'summa exkl moms', 'netto', 'radtotal', 'varde', 'att betala', 'pris totalt', 'totalpris', 'summa kr', 'belopp sek'], grossAmount: ['belopp inkl moms', 'summa inkl moms', 'totalt inkl moms'], date: ['datum', 'period'],
  },
  totals: {
    goods: ['delsumma', 'varuvarde', 'summa varor', 'summa rader', 'radsumma', 'summa artiklar', 'delsumma varor', 'summa exkl frakt', 'varubelopp', 'bruttobelopp'],
    net: ['netto', 'summa exkl moms', 'belopp exkl moms', 'totalt exkl moms', 'nettobelopp', 'summa netto', 'exkl moms', 'momsunderlag', 'underlag moms', 'total exkl moms', 'nettosumma', 'fakturabelopp exkl moms', 'belopp fore moms', 'summa fore moms', 'totalt netto', 'momspliktigt belopp', 'summa exklusive moms', 'totalt exklusive moms', 'beskattningsunderlag'],
    tax: ['moms', 'momsbelopp', 'varav moms', 'total moms', 'summa moms', 'moms kr', 'mervardesskatt', 'moms totalt', 'inkl moms med', 'totalt moms'], gross: ['att betala', 'summa att betala', 'totalt inkl moms', 'totalbelopp', 'summa inkl moms', 'att erhalla', 'totalt', 'fakturabelopp', 'totalsumma', 'summa', 'total', 'belopp att betala', 'totalt att betala', 'fakturatotal', 'fakturasumma', 'slutsumma', 'att betala kr', 'total inkl moms', 'att betala sek', 'tillgodo', 'er tillgodo', 'kreditbelopp', 'belopp inkl moms', 'summa kredit', 'summa inklusive moms', 'totalt inklusive moms', 'brutto'],
    charge: ['frakt', 'fraktkostnad', 'expeditionsavgift', 'emballage', 'porto', 'fraktavgift', 'faktureringsavgift', 'leveransavgift', 'fakturaavgift', 'administrationsavgift', 'miljoavgift', 'framkorning', 'forpackning', 'leverans', 'drivmedelstillagg', 'pallavgift', 'transportavgift', 'exp avgift'], discount: ['rabatt', 'avgar rabatt', 'kundrabatt', 'avdrag', 'avgar', 'fakturarabatt', 'minus rabatt', 'totalrabatt', 'kassarabatt', 'orderrabatt'], deposit: ['forskott', 'redan betalt', 'betalt', 'avgar forskott', 'forskottsbetalning', 'delbetalning', 'a conto', 'erhallet forskott', 'handpenning', 'tidigare betalt'],
    carried: ['transport', 'transporteras', 'att transportera', 'overfort', 'transport fran foregaende sida'], balance: ['saldo', 'kvar att betala', 'aterstar att betala', 'aterstaende', 'restbelopp', 'resterande belopp', 'aterstar', 'ingaende saldo', 'utestaende belopp', 'rest att betala', 'kvarstar att betala'],
  },
  kinds: {
    invoice: ['faktura', 'faktura #', 'samlingsfaktura', 'kundfaktura'], creditNote: ['kreditfaktura', 'kreditnota', 'kreditfaktura #', 'kredit faktura'],
    other: ['foljesedel', 'offert', 'kontoutdrag', 'orderbekraftelse', 'paminnelse', 'betalningspaminnelse', 'proformafaktura', 'proforma', 'inkopsorder', 'allmanna villkor', 'leveransvillkor', 'orderbekraftelse #', 'anbud', 'krav', 'plocklista', 'kontoutdrag'],
  },
  units: 'st tim timmar dagar veckor manader',
};
