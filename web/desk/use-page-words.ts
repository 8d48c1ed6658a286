import { useMemo } from 'react';
import { toast } from 'sonner';
import type { DocumentPages, Mark } from '@ledgerline/contract';
import { sentenceOf } from '../app/api';
import { usePlace } from '../app/company';
import { arrivalsApi } from '../arrivals/api';
import { fillFrom, wantsDigits } from './fill';
import { wordsIn } from './place';
import { printOf } from './print';
import type { Desk } from './use-desk';

/** What a click on a word and a box drawn on the page do with the field in hand. */
export function usePageWords(desk: Desk | null, pages: DocumentPages | undefined) {
  const { company } = usePlace();
  const [readSpot] = arrivalsApi.useReadSpotMutation();
  const bill = desk?.bill ?? null;
  const print = useMemo(() => (bill ? printOf(bill, pages?.pages ?? []) : null), [bill, pages]);
  const word = (text: string, mark: Mark, spot = false) => {
    if (!desk || desk.locked || !desk.active || !print) return;
    const fill = fillFrom(desk.bill, desk.active, text, mark, print, spot);
    if (!fill) return void toast(`“${text}” does not fit this field`);
    (document.activeElement as HTMLElement | null)?.blur();
    desk.edit(fill);
  };
  /** What stands in a drawn box goes into the field in hand: ink is read anew, text is taken as it is. */
  const box = async (mark: Mark) => {
    const page = pages?.pages.find((p) => p.number === mark.page);
    if (!page || !desk?.bill.documentId || desk.locked) return;
    if (!desk.active) return void toast('Choose the field first, then draw the box');
    try {
      const text = page.scan
        ? (
            await readSpot({
              company: company.id,
              id: desk.bill.documentId,
              body: { ...mark, digits: wantsDigits(desk.active) },
            }).unwrap()
          ).text
        : wordsIn(page, mark);
      const seen = text || wordsIn(page, mark);
      if (seen) word(seen, mark, true);
      else toast('Nothing could be read in that box');
    } catch (e) {
      toast.error(sentenceOf(e));
    }
  };
  return { word, box, print };
}
