/** Month names and their short forms in seven languages, lower case without accents, and the month each means. */
const names: Record<string, string[]> = {
  en: ['january jan', 'february feb', 'march mar', 'april apr', 'may', 'june jun', 'july jul', 'august aug', 'september sep sept', 'october oct', 'november nov', 'december dec'],
  de: ['januar', 'februar', 'marz mrz maerz', 'april', 'mai', 'juni', 'juli', 'august', 'september', 'oktober okt', 'november', 'dezember dez'],
  fr: ['janvier janv', 'fevrier fevr fev', 'mars', 'avril avr', 'mai', 'juin', 'juillet juil', 'aout', 'septembre', 'octobre', 'novembre', 'decembre'],
  nl: ['januari', 'februari', 'maart mrt', 'april', 'mei', 'juni', 'juli', 'augustus', 'september', 'oktober', 'november', 'december'],
  es: ['enero ene', 'febrero', 'marzo', 'abril abr', 'mayo', 'junio', 'julio', 'agosto ago', 'septiembre', 'octubre', 'noviembre', 'diciembre dic'],
  it: ['gennaio gen', 'febbraio', 'marzo', 'aprile', 'maggio mag', 'giugno giu', 'luglio lug', 'agosto', 'settembre set', 'ottobre ott', 'novembre', 'dicembre'],
  sv: ['januari', 'februari', 'mars', 'april', 'maj', 'juni', 'juli', 'augusti', 'september', 'oktober', 'november', 'december'],
};

/** Month number (1 to 12) by name. */
export const months: ReadonlyMap<string, number> = new Map(
  Object.values(names).flatMap((list) => list.flatMap((forms, index) => forms.split(' ').map((form) => [form, index + 1] as const))),
);
