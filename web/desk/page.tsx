import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { useParams } from 'react-router';
import { sentenceOf } from '../app/api';
import { usePlace } from '../app/company';
import { AskNote } from '../ui/dialog';
import { useWidth } from '../ui/measure';
import { Split } from '../ui/split';
import { Trouble, Waiting } from '../ui/states';
import { useApart, type OnDesk } from './apart';
import { Clashes } from './clashes';
import { Exceptions } from './exceptions';
import { focusField } from './focus';
import { HeaderFields } from './header';
import { ColumnsDialog } from './grid/columns-dialog';
import { LineGrid } from './grid/grid';
import { isOne } from './grid/selection';
import { Troubles } from './grid/troubles';
import { useGridActs } from './grid/use-acts';
import { useGridClipboard } from './grid/use-clipboard';
import { useGrid } from './grid/use-grid';
import { useGridKeys } from './grid/use-grid-keys';
import { History } from './history';
import { marksOf } from './marks';
import { OrderDialog } from '../matching/dialog';
import { OrderStrip } from '../matching/strip';
import { SupplierDialog } from '../suppliers/edit';
import { PutRight } from './put-right';
import { RowDialogs, type RowQuestion } from './row-dialogs';
import { InkAtHand, useInk } from './ink-at-hand';
import { PageSide } from './page-side';
import { BesideDialog } from './beside-dialog';
import { ProofStrip } from './strip';
import { AssignDialog } from './assign';
import { SetAsideDialog } from './set-aside';
import { SittingDialog } from './sitting-dialog';
import { DeskTop, type Asked } from './top';
import { useOthers } from './use-others';
import { usePresence } from './use-presence';
import { MakeRepeat } from './make-repeat';
import { WholeHistory } from './whole-history';
import { Notes } from '../notes/notes';
import { useDesk } from './use-desk';
import { doubtsOf, useDeskKeys } from './use-desk-keys';
import { useMoves } from './use-moves';
import { useNewSupplier } from './use-new-supplier';
import { usePageWords } from './use-page-words';
import { leastShare, useDeskView } from './view';

const asks: Partial<Record<Asked, [title: string, action: string]>> = {
  discard: ['Discard this bill', 'Discard'],
  return: ['Return to the clerk', 'Return'],
};

const none: never[] = [];

/** The desk: the page on the left, the bill on the right, the proof at the foot. */
export function DeskPage() {
  const { id = '' } = useParams();
  const { company, me } = usePlace();
  const { desk, held, proof, pages, error } = useDesk(id);
  const { word, box, print } = usePageWords(desk, pages);
  const bill = desk?.bill ?? null,
    active = desk?.active ?? null;
  const marks = useMemo(() => (bill ? marksOf(bill) : []), [bill]);
  const afar = useMemo(
    (): OnDesk | null => bill && { company: company.id, documentId: bill.documentId, title: bill.invoiceNumber ?? 'Bill', marks, active },
    [bill, company.id, marks, active],
  );
  const take = (path: string) => {
    desk?.take(path);
    focusField(path);
  };
  const apart = useApart(me.id, afar, { mark: take, word, box: (mark) => void box(mark) });
  const [drawn, setDrawn] = useState('');
  const shown = desk !== null && (desk.bill.documentId === null || drawn === desk.bill.documentId || apart);
  const { act, handOver, moveCompany, leave, left, sitting } = useMoves(id, desk?.bill.invoiceNumber ?? null, shown);
  const [asking, ask] = useState<Asked | null>(null);
  const other = useOthers(desk, pages?.pages ?? none, print);
  const supplier = useNewSupplier(desk);
  const [columns, showColumns] = useState(false);
  const repair = desk && proof?.repairs[0];
  useDeskKeys(desk, {
    done: () => void act('send'),
    setAside: () => ask('set-aside'),
    other,
    assign: () => ask('assign'),
    history: () => ask('history'),
    orders: () => ask('orders'),
    columns: () => showColumns(true),
    repair: repair ? () => desk.repair(repair) : null,
    supplier: supplier.may ? () => void supplier.make() : null,
    leave,
  });
  const named = desk?.bill.notes.some((n) => n.mentions.some((m) => m.id === me.id)) ?? false;
  const others = usePresence(id, named);
  const [view, change] = useDeskView(me.id);
  const [room, wide] = useWidth();
  const grid = useGrid(desk, view, wide);
  const [rowAsked, askRow] = useState<RowQuestion | null>(null);
  const acts = useGridActs(desk, grid, askRow);
  useGridKeys(desk, grid, acts);
  const clipboard = useGridClipboard(desk, grid, print?.numbers ?? null);
  const scroller = useRef<HTMLElement>(null);
  const measured = useCallback(
    (element: HTMLElement | null) => {
      scroller.current = element;
      room(element);
    },
    [room],
  );
  // A block of cells stands still while it is drawn.
  const ranged = grid?.selection ? !isOne(grid.selection) : false;
  const ink = useInk(ranged ? null : desk, pages?.pages ?? none, wide - 12);
  const first = desk && !desk.locked ? doubtsOf(desk)[0] : undefined;
  const ready = Boolean(desk && (pages || !desk.bill.documentId));
  useEffect(() => {
    if (ready && first && document.activeElement === document.body) focusField(first);
  }, [id, ready]); // eslint-disable-line react-hooks/exhaustive-deps -- once a bill

  if (error && !desk) return <Trouble sentence={sentenceOf(error)} />;
  if (!desk || !bill || !proof || !held) return <Waiting />;
  const { locked } = desk;
  const base = `/api/companies/${company.id}/documents/${bill.documentId}`;
  const thePage = (
    <PageSide
      {...{ desk, pages, marks, view, change }}
      onMark={take}
      onWord={word}
      onBox={(mark) => void box(mark)}
      onDrawn={() => setDrawn(bill.documentId!)}
    />
  );
  const theBill = (
    <section aria-label="Bill" ref={measured} className="h-full overflow-auto">
      <div className="relative">
        {bill.stage === 'returned' && bill.note && (
          <p className="border-l-4 border-error bg-error/10 px-5 py-2">
            <b>Returned:</b> {bill.note}
          </p>
        )}
        <Clashes desk={desk} held={held} />
        <Exceptions desk={desk} newSupplier={supplier.may ? () => void supplier.make() : null} />
        <OrderStrip desk={desk} open={() => ask('orders')} />
        <HeaderFields desk={desk} newSupplier={supplier.ask} />
        <Troubles troubles={clipboard.troubles} done={clipboard.settled} />
        {grid && (
          <LineGrid
            desk={desk}
            grid={grid}
            acts={acts}
            clipboard={{ onCopy: clipboard.onCopy, onCut: clipboard.onCut, onPaste: clipboard.onPaste }}
            rows={proof.rows}
            onWidth={(id, width) => change({ widths: { ...view.widths, [id]: width } })}
            ink={ink && { line: ink.piece.line, height: ink.height }}
            scroller={scroller}
          />
        )}
        <PutRight bill={bill} />
        <Notes billId={bill.id} notes={bill.notes} />
        <History bill={bill} />
        <InkAtHand ink={ink} base={base} active={desk.active} />
      </div>
    </section>
  );
  return (
    <div className="flex h-full flex-col">
      <DeskTop
        {...{ desk, held, left, sitting, others, ask, leave }}
        act={(what) => void act(what)}
        handOver={(personId) => void handOver(personId)}
        moveCompany={(to) => void moveCompany(to)}
      />
      <Split
        label="Width of the page"
        share={view.share}
        least={leastShare}
        stacked={view.side === 'above'}
        turned={view.side === 'right'}
        onShare={(share) => change({ share })}
        first={apart ? null : thePage}
        second={theBill}
      />
      <ProofStrip bill={bill} proof={proof} locked={locked} repair={desk.repair} />
      {columns && <ColumnsDialog dimensions={desk.bill.dimensions} view={view} change={change} close={() => showColumns(false)} />}
      <RowDialogs desk={desk} asked={rowAsked} close={() => askRow(null)} />
      {asking === 'set-aside' && (
        <SetAsideDialog
          close={() => ask(null)}
          done={(note, until) => {
            ask(null);
            void act('set-aside', { note, until });
          }}
        />
      )}
      {asking === 'assign' && (
        <AssignDialog
          now={bill.assignee?.id ?? null}
          close={() => ask(null)}
          done={(personId) => {
            ask(null);
            void handOver(personId);
          }}
        />
      )}
      {asking === 'history' && <WholeHistory desk={desk} close={() => ask(null)} />}
      {asking === 'orders' && <OrderDialog desk={desk} close={() => ask(null)} />}
      {asking === 'beside' && <BesideDialog billId={bill.id} close={() => ask(null)} />}
      {asking === 'repeat' && <MakeRepeat desk={desk} close={() => ask(null)} />}
      {asking === 'sitting' && <SittingDialog sitting={sitting} close={() => ask(null)} />}
      {(asking === 'discard' || asking === 'return') && (
        <AskNote
          title={asks[asking]![0]}
          action={asks[asking]![1]}
          close={() => ask(null)}
          done={(note) => {
            ask(null);
            void act(asking, { note });
          }}
        />
      )}
      {supplier.begun && <SupplierDialog begun={supplier.begun} close={() => supplier.ask(null)} done={supplier.take} />}
    </div>
  );
}
