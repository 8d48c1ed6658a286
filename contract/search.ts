/** A search in words: "supplier:brackwater over:500 due:this-week stage:read glass". */
export interface Search {
  text: string[];
  supplier: string | null;
  number: string | null;
  stage: string[];
  over: string | null;
  under: string | null;
  due: string | null;
  /** In whose hands: me, nobody, or part of a name. */ hands: string | null;
  kind: string | null;
  currency: string | null;
  /** The code of a check that found something open. */ exception: string | null;
}

const amount = /^\d{1,12}(\.\d{1,4})?$/;

/** Reads the search field. A word that is no filter is looked for in supplier and number; "-" stands for a space in a filter. */
export function parseSearch(typed: string): Search {
  const search: Search = {
    text: [],
    supplier: null,
    number: null,
    stage: [],
    over: null,
    under: null,
    due: null,
    hands: null,
    kind: null,
    currency: null,
    exception: null,
  };
  for (const word of typed.trim().split(/\s+/).filter(Boolean)) {
    const [, name, raw] = /^(supplier|number|stage|over|under|due|hands|kind|currency|exception):(.+)$/i.exec(word) ?? [];
    if (!name || !raw) {
      search.text.push(word);
      continue;
    }
    const key = name.toLowerCase();
    const value = raw.replace(/,(?=\d{3})/g, '');
    if (key === 'stage') search.stage.push(...value.toLowerCase().split(','));
    else if (key === 'over' && amount.test(value)) search.over = value;
    else if (key === 'under' && amount.test(value)) search.under = value;
    else if (key === 'supplier') search.supplier = value.replace(/-/g, ' ');
    else if (key === 'number') search.number = value;
    else if (key === 'due') search.due = value.toLowerCase();
    else if (key === 'hands') search.hands = value.toLowerCase().replace(/-/g, ' ');
    else if (key === 'kind') search.kind = value.toLowerCase();
    else if (key === 'currency') search.currency = value.toUpperCase();
    else if (key === 'exception') search.exception = value.toLowerCase();
    else search.text.push(word);
  }
  return search;
}
