import { useState } from 'react';
import { Link } from 'react-router';
import type { Bill } from '@ledgerline/contract';
import { sentenceOf } from '../app/api';
import { usePlace } from '../app/company';
import { arrivalsApi } from '../arrivals/api';
import { billsApi } from '../bills/api';
import { Dialog, DialogEnd } from '../ui/dialog';
import { money, showDay } from '../ui/format';
import { PageView } from '../ui/page-view';
import { StageWord } from '../ui/stage';
import { Trouble, Waiting } from '../ui/states';
import type { Desk } from './use-desk';

/** How wide a page is drawn here, in pixels. */
const wide = 550;
/** What of two bills is held side by side, each as it is read. */
const fields: [string, (b: Bill, supplier: string) => string][] = [
  ['Supplier', (_, supplier) => supplier],
  ['Number', (b) => b.invoiceNumber ?? ''],
  ['Date', (b) => showDay(b.issueDate)],
  ['Due', (b) => showDay(b.dueDate)],
  ['Order', (b) => b.purchaseOrder ?? ''],
  ['Net', (b) => money(b.net, b.currency)],
  ['Tax', (b) => money(b.tax, b.currency)],
  ['Total', (b) => `${b.currency} ${money(b.gross, b.currency)}`],
  ['Rows', (b) => String(b.lines.length)],
  ['Account', (b) => b.supplierIban ?? ''],
];

/** A bill beside another that it may be: what each says, differences lit, and their pages in step. */
export function TwinDialog({ desk, other, close }: { desk: Desk; other: string; close(): void }) {
  const { company } = usePlace();
  const { currentData: twin, error } = billsApi.useBillQuery({ company: company.id, id: other });
  const [page, turn] = useState(1);
  const here = desk.bill;
  const named = (b: Bill) => b.named.find((n) => n.id === b.supplierId)?.name ?? b.supplierName ?? '';
  return (
    <Dialog title="Are these one bill?" wide="whole" close={close}>
      {error ? (
        <Trouble sentence={sentenceOf(error)} />
      ) : !twin ? (
        <Waiting />
      ) : (
        <div className="max-h-[70vh] overflow-auto">
          <table aria-label="Both bills" className="mb-3 w-full text-[14px]">
            <thead>
              <tr>
                <th className="plain text-left" />
                <th className="plain text-left">This bill</th>
                <th className="plain text-left">
                  <Link className="hover:underline" to={`/bills/${twin.id}`}>
                    The other one
                  </Link>{' '}
                  <span className="font-normal">
                    <StageWord stage={twin.stage} />
                  </span>
                </th>
              </tr>
            </thead>
            <tbody>
              {fields.map(([label, of]) => {
                const [a, b] = [of(here, named(here)), of(twin, named(twin))],
                  lit = a === b ? '' : 'bg-warning/25 font-semibold';
                if (!a && !b) return null;
                return (
                  <tr key={label} className="border-t hair" data-differs={a !== b}>
                    <th className="plain w-28 text-left font-normal quiet">{label}</th>
                    <td className={`plain ${lit}`}>{a}</td>
                    <td className={`plain ${lit}`}>{b}</td>
                  </tr>
                );
              })}
            </tbody>
          </table>
          <div className="flex gap-4">
            <Page documentId={here.documentId} page={page} />
            <Page documentId={twin.documentId} page={page} />
          </div>
        </div>
      )}
      <DialogEnd close={close}>
        <button type="button" className="btn btn-sm" disabled={page === 1} onClick={() => turn(page - 1)}>
          Page before
        </button>
        <button type="button" className="btn btn-sm" onClick={() => turn(page + 1)}>
          Next page
        </button>
        <span className="text-[13px] quiet">Both turn together: page {page}</span>
      </DialogEnd>
    </Dialog>
  );
}

/** One page of a document, or why there is none. */
function Page({ documentId, page }: { documentId: string | null; page: number }) {
  const { company } = usePlace();
  const { currentData } = arrivalsApi.usePagesQuery({ company: company.id, id: documentId ?? '' }, { skip: !documentId });
  const shown = currentData?.pages[page - 1];
  return (
    <div
      className="relative min-h-40 border hair"
      style={{ width: wide, height: shown && (wide * (shown.scan?.height ?? shown.height)) / (shown.scan?.width ?? shown.width) }}
    >
      {/* A scan takes a while to be drawn: it covers this. */}
      {shown && <p className="absolute p-4 quiet">The page is being drawn.</p>}
      {shown ? (
        <PageView
          base={`/api/companies/${company.id}/documents/${documentId}`}
          page={shown}
          look="cleaned"
          scale={wide / (shown.scan?.width ?? shown.width)}
          onFail={() => undefined}
        />
      ) : (
        <p className="p-4 quiet">{documentId ? (currentData ? 'No such page.' : 'The page is being loaded.') : 'No page.'}</p>
      )}
    </div>
  );
}
