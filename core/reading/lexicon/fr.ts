import type { Lexicon } from './types.ts';

export const fr: Lexicon = {
  fields: {
    invoiceNumber: ['# de facture', 'facture #', '# facture', 'facture numero', '# de la facture', 'reference facture', 'ref facture', 'notre facture', '# piece', 'piece #', '# document', '?facture', '?numero'],
    creditNumber: ['# avoir', 'avoir #', "# d'avoir", '# de l avoir', 'facture d avoir #', "facture d'avoir #", '# note de credit', 'note de credit #', '?avoir'],
    issueDate: ['date de facture', 'date facture', 'date de la facture', 'date emission', "date d'emission", 'date de facturation', 'date du document', "date de l'avoir", 'date avoir', 'facture du', 'emise le', 'etablie le', 'date piece', '?date', '?le'],
    dueDate: ['echeance', "date d'echeance", 'date decheance', 'date echeance', 'a payer avant le', 'payable le', 'date limite de paiement', 'a regler avant le', 'echeance le', 'a regler le', 'reglement le', 'payable avant le', 'date de reglement'],
    purchaseOrder: ['commande', 'bon de commande', '# de commande', 'votre commande', '# commande', 'commande #', 'v commande', 'votre commande #', 'votre bon de commande', '# bon de commande', 'bon de commande #', 'vos ref commande', 'commande client', 'reference commande', 'ref commande', '?votre reference', '?votre ref', '?v ref', '?vos references', '?vos ref'],
    terms: ['conditions de paiement', 'modalites de paiement', 'reglement', 'conditions de reglement', 'mode de reglement', 'modalites de reglement', 'condition de paiement', 'delai de paiement', 'paiement', 'mode de paiement'], currency: ['devise', 'monnaie'],
    taxId: ['# tva', 'tva intracommunautaire', '# de tva', '# tva intracommunautaire', 'tva intra', 'tva intracom', 'identifiant tva', '# tva intra', 'id tva', '# de tva intracommunautaire', '# identification tva', 'tva #', 'code tva'],
    buyerTaxId: ['votre tva', 'votre # tva', '# tva client'],
    billTo: ['facture a', 'facturer a', 'facturee a', 'adresse de facturation', 'client', 'destinataire', 'adresse facturation', 'adresse facture', 'facturation', 'adressee a'], deliverTo: ['livrer a', 'livre a', 'adresse de livraison', 'livraison', 'adresse livraison', 'lieu de livraison', 'chantier'],
    otherDate: ['date de livraison', 'date de commande', 'livre le', 'livree le', 'date livraison', 'date commande', 'commande du', 'periode', 'date expedition', "date d'expedition", 'date impression', 'livraison du', 'date de prestation', "date d'impression"],
    otherReference: ['# client', 'code client', 'reference client', 'ref client', 'compte client', 'client #', 'bon de livraison', 'bon de livraison #', 'bl #', 'bl', 'n ref', 'notre reference', 'notre ref', 'nos references', 'nos ref', 'siret', '# siret', 'siren', 'rcs', 'ape', 'code ape', 'naf', 'page', 'dossier', 'affaire', 'contrat', '# de contrat', 'devis #', 'contact', 'sur facture', 'facture origine', "facture d'origine", '# de compte'],
  },
  columns: {
    code: ['reference', 'ref', 'code article', 'article', 'code', 'ref article', 'reference article', '# article', 'code produit'], position: ['pos', 'ligne', 'poste'],
    description: ['designation', 'description', 'libelle', 'prestation', 'produit', 'designation des articles', 'designation article', 'article designation', 'detail', 'intitule', 'nature', 'designation des produits', 'prestations'],
    quantity: ['quantite', 'qte', 'nombre', 'heures', 'quantites', 'nb', 'qte livree', 'jours'], otherQuantity: ['commande', 'qte cdee', 'reste', 'qte commandee'],
    unit: ['unite', 'u', 'un', 'unites'], unitPrice: ['prix unitaire', 'pu', 'pu ht', 'prix unitaire ht', 'p u', 'p u ht', 'prix', 'prix ht', 'prix unit', 'prix unit ht', 'tarif', 'prix net', 'pu net', 'prix unitaire net', 'taux horaire', 'p unitaire', 'pu ttc', 'prix u', 'prix u ht', 'pu eur'],
    discount: ['remise', 'remise %', 'rem', 'rem %', '% remise', '% rem', 'rabais'], taxRate: ['tva', 'taux tva', 'tva %', '% tva', 'taux de tva', 'code tva', 'taux'], taxAmount: ['montant tva'],
    amount: ['montant', 'montant ht', 'total ht', 'total', 'prix total', 'montant net', 'prix total ht', 'total net', 'total ligne', 'montant net ht', 'net ht', 'total net ht', 'total € ht', 'valeur'], grossAmount: ['montant ttc', 'total ttc', 'prix ttc'], date: ['date', 'periode'],
  },
  totals: {
    goods: ['sous total', 'soustotal', 'total marchandises', 'total articles', 'total lignes', 'total brut', 'total brut ht', 'montant brut ht'], net: ['total ht', 'montant ht', 'total hors taxes', 'net ht', 'total net ht', 'base ht', 'total net', 'montant net ht', 'montant total ht', 'total hors taxe', 'base imposable', 'montant hors taxes', 'base tva', 'total h t', 'total general ht', 'net hors taxes'],
    tax: ['tva', 'montant tva', 'total tva', 'dont tva', 'montant de la tva', 'taxe', 'total taxes', 'tva collectee', 'montant total tva', 'total t v a', 't v a'],
    gross: ['total ttc', 'montant ttc', 'net a payer', 'total a payer', 'a payer', 'montant total', 'total avoir', 'net a votre credit', 'montant total ttc', 'net a payer ttc', 'total facture', 'total general', 'total general ttc', 'total', 'montant a payer', 'montant du', 'a regler', 'montant a regler', 'net a crediter', 'total t t c', 'total toutes taxes comprises', 'montant avoir', 'total a regler', 'net a deduire', 'total credit'],
    charge: ['port', 'frais de port', 'transport', 'emballage', 'livraison', 'frais de livraison', 'frais de transport', "frais d'expedition", 'port et emballage', 'eco contribution', 'frais de dossier', 'frais', 'participation transport', 'deplacement', 'frais de deplacement', 'frais annexes'],
    discount: ['remise', 'rabais', 'remise commerciale', 'remise globale', 'escompte', 'ristourne', 'remise exceptionnelle'], deposit: ['acompte', 'deja regle', 'acompte verse', 'deja paye', 'acompte recu', 'acomptes', 'deduction acompte'],
    carried: ['report', 'a reporter', 'reporter', 'report page precedente', 'total a reporter'], balance: ['solde', 'reste a payer', 'solde a payer', 'reste du', 'solde du', 'solde anterieur', 'net restant a payer', 'restant du', 'solde restant'],
  },
  kinds: {
    invoice: ['facture', 'facture #', 'facture de vente', 'facture client'], creditNote: ['avoir', 'facture d avoir', "facture d'avoir", 'note de credit', 'avoir #'],
    other: ['bon de livraison', 'devis', 'releve de compte', 'conditions generales', 'relance', 'bon de commande', 'confirmation de commande', 'facture pro forma', 'facture proforma', 'releve', 'conditions generales de vente', 'accuse de reception', 'bordereau de livraison', 'releve de factures', 'proforma'],
  },
  units: 'pce piece pieces heure heures jour jours semaine semaines mois',
};
