import { useEffect } from 'react';
import { usePlace } from '../app/company';
import { arrivalsApi } from '../arrivals/api';
import { Empty } from '../ui/states';
import { useDeskAfar } from './apart';
import { Sheet } from './sheet';

/** The page of the bill on the desk in a window of its own, for a second screen: lit up in step with the desk, in both directions. */
export function ApartPage() {
  const { me } = usePlace();
  const { on, mark, word, box } = useDeskAfar(me.id);
  const documentId = on?.documentId ?? null;
  const { currentData: pages } = arrivalsApi.usePagesQuery({ company: on?.company ?? '', id: documentId ?? '' }, { skip: !documentId });
  useEffect(() => {
    document.title = on ? `${on.title} – page` : 'Page – Ledgerline';
  }, [on]);
  if (!on) return <Empty>No bill is on the desk. Open one in the other window.</Empty>;
  if (!documentId) return <Empty>The bill on the desk has no document.</Empty>;
  if (!pages) return <Empty>The page is being loaded.</Empty>;
  return (
    <main aria-label="Page" className="h-full bg-base-100 text-base-content">
      <Sheet
        base={`/api/companies/${on.company}/documents/${documentId}`}
        pages={pages.pages}
        marks={on.marks}
        active={on.active}
        onMark={mark}
        onWord={word}
        onBox={box}
      />
    </main>
  );
}
