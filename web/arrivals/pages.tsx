import { DndContext, PointerSensor, pointerWithin, useSensor, useSensors } from '@dnd-kit/core';
import { ArrowLeft, Lock, Merge, RotateCw, Scissors, Trash2, Undo2 } from 'lucide-react';
import { useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { toast } from 'sonner';
import type { Arrange, PageSource } from '@ledgerline/contract';
import { sentenceOf } from '../app/api';
import { usePlace } from '../app/company';
import { useKeys } from '../app/keys/registry';
import { Empty, Head, Trouble, Waiting } from '../ui/states';
import { arrivalsApi } from './api';
import { backTo, join, leaveOut, move, putBack, shifted, splitAt, toArrange, turn, type Place } from './arranging';
import { DraggedPage, DropPlace } from './dragging';
import { Thumb } from './thumb';

const words: Record<string, string> = {
  waiting: 'waiting to be read',
  reading: 'being read',
  read: 'read',
  aside: 'to one side',
  unreadable: 'not read',
  duplicate: 'here already',
};
const count = (n: number, one: string) => `${n} ${one}${n === 1 ? '' : 's'}`;

/** The pages of an arrival: shared out among documents by hand. Every step is read at once and can be undone. */
export function PagesPage() {
  const { id = '' } = useParams();
  const { company, can } = usePlace();
  const navigate = useNavigate();
  const { currentData: data, error } = arrivalsApi.useArrangementQuery({ company: company.id, id });
  const [arrange, { isLoading }] = arrivalsApi.useArrangeMutation();
  const [past, setPast] = useState<Arrange[]>([]);
  const [dragged, setDragged] = useState<Place | null>(null);
  // A short way before a press becomes a drag, so that buttons on a page stay buttons.
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 5 } }));
  const may = can('arrivals:add') && !isLoading;

  const apply = async (wanted: Arrange, undoing = false) => {
    if (!data || !may) return;
    const before = toArrange(data);
    if (JSON.stringify(before) === JSON.stringify(wanted)) return;
    try {
      await arrange({ company: company.id, id, body: wanted }).unwrap();
      setPast(undoing ? past.slice(0, -1) : [...past, before]);
    } catch (e) {
      toast.error(sentenceOf(e));
    }
  };
  const undo = () => {
    const last = past[past.length - 1];
    if (data && last) void apply(backTo(last, data), true);
  };
  useKeys('Pages', [
    { key: 'ArrowRight', what: 'Choose a page (← →)' },
    { key: 'Alt+ArrowRight', what: 'Move the page (Alt+← →)' },
    { key: 'S', what: 'Split before the page' },
    { key: 'R', what: 'Turn the page' },
    { key: 'Delete', what: 'Leave the page out' },
    { key: 'Ctrl+Z', what: 'Undo', run: undo },
    { key: 'Escape', what: 'Back to arrivals', run: () => void navigate('/arrivals') },
  ]);
  if (error) return <Trouble sentence={sentenceOf(error)} />;
  if (!data) return <Waiting />;
  const now = toArrange(data);
  const filled = data.documents.map((d, index) => ({ ...d, index })).filter((d) => d.pages.length > 0);
  const base = `/api/companies/${company.id}/arrivals/${id}`;
  const drop = (to: Place) => {
    if (dragged) void apply(move(now, dragged, to));
    setDragged(null);
  };
  const keys = (e: React.KeyboardEvent, at: Place) => {
    const step = e.key === 'ArrowRight' ? 1 : e.key === 'ArrowLeft' ? -1 : 0;
    const key = e.key.toLowerCase();
    if (step && e.altKey) {
      e.preventDefault();
      void apply(move(now, at, shifted(data, at, step)));
    } else if (step) {
      e.preventDefault();
      const all = [...document.querySelectorAll<HTMLElement>('[data-page]')];
      all[all.indexOf(e.currentTarget as HTMLElement) + step]?.focus();
    } else if (key === 'r') void apply(turn(now, at));
    else if (key === 's' && !e.ctrlKey) void apply(splitAt(now, at));
    else if (e.key === 'Delete' && at.document >= 0) void apply(leaveOut(now, at));
  };
  const sheet = (source: PageSource, at: Place, fixed: boolean) => (
    <DropPlace key={`${source.sha}${source.page}`} at={at} off={fixed} className="relative flex">
      {!fixed && at.page > 0 && at.document >= 0 && (
        <button
          className="btn btn-ghost btn-xs btn-square mt-16 mr-1 text-accent"
          title="Split here (S)"
          aria-label={`Split before page ${at.page + 1}`}
          disabled={!may}
          onClick={() => void apply(splitAt(now, at))}
        >
          <Scissors size={14} aria-hidden />
        </button>
      )}
      <DraggedPage
        at={at}
        off={fixed || !may}
        label={`Page ${at.page + 1}`}
        onKeyDown={(e) => {
          if (!fixed) keys(e, at);
        }}
      >
        <Thumb base={base} source={source} image={data.files[source.sha] ?? 'pdf'} />
        <div className="flex h-7 items-center gap-1 px-1.5 text-[13px]">
          <span className="mr-auto">{at.document < 0 ? 'Left out' : at.page + 1}</span>
          {!fixed && (
            <>
              <button
                className="btn btn-ghost btn-xs btn-square"
                title="Turn (R)"
                aria-label="Turn"
                disabled={!may}
                onClick={() => void apply(turn(now, at))}
              >
                <RotateCw size={13} aria-hidden />
              </button>
              {at.document < 0 ? (
                <button
                  className="btn btn-ghost btn-xs"
                  disabled={!may}
                  onClick={() => void apply(putBack(now, at.page, filled.filter((d) => !d.fixed).at(-1)?.index ?? -1))}
                >
                  Put back
                </button>
              ) : (
                <button
                  className="btn btn-ghost btn-xs btn-square"
                  title="Leave out (Delete)"
                  aria-label="Leave out"
                  disabled={!may}
                  onClick={() => void apply(leaveOut(now, at))}
                >
                  <Trash2 size={13} aria-hidden />
                </button>
              )}
            </>
          )}
        </div>
      </DraggedPage>
    </DropPlace>
  );
  return (
    <div className="flex h-full flex-col">
      <Head
        title="Pages"
        detail={`${count(filled.length, 'document')}, ${count(
          filled.reduce((n, d) => n + d.pages.length, 0),
          'page',
        )}. Drag a page, or use Alt+← →, S to split, R to turn, Delete to leave out`}
      >
        <button className="btn btn-sm" onClick={() => navigate('/arrivals')}>
          <ArrowLeft size={14} aria-hidden />
          Arrivals
        </button>
        <button className="btn btn-sm" title="Ctrl+Z" disabled={past.length === 0 || !may} onClick={undo}>
          <Undo2 size={14} aria-hidden />
          Undo
        </button>
      </Head>
      <DndContext
        sensors={sensors}
        // The pointer decides, wherever the frame of the dragged page lies when the places "To the end" open.
        collisionDetection={pointerWithin}
        onDragStart={({ active }) => setDragged(active.data.current as Place)}
        onDragCancel={() => setDragged(null)}
        onDragEnd={({ over }) => (over ? drop(over.data.current as Place) : setDragged(null))}
      >
        <div className="min-h-0 grow overflow-auto">
          {filled.length === 0 && now.leftOut.length === 0 && <Empty>This arrival has no pages to share out.</Empty>}
          <div className="flex flex-wrap items-start gap-4 p-5">
            {filled.map((d, i) => (
              <section key={d.id} aria-label={`Document ${i + 1}`} className="max-w-full rounded border hair bg-base-200/50 p-3">
                <header className="mb-2 w-64 max-w-full">
                  <div className="flex h-6 items-center gap-2">
                    <h2 className="font-semibold">{i + 1}</h2>
                    {d.billId ? (
                      <Link className="truncate text-primary hover:underline" to={`/bills/${d.billId}`}>
                        {d.label || 'Open the bill'}
                      </Link>
                    ) : (
                      <span className="truncate">{d.name}</span>
                    )}
                  </div>
                  <div className="flex h-7 items-center gap-2">
                    <span className="shrink-0 text-[13px] quiet">{words[d.state]}</span>
                    {d.fixed && (
                      <span className="inline-flex items-center gap-1 text-[13px] quiet">
                        <Lock size={13} aria-hidden />
                        sent on
                      </span>
                    )}
                    {!d.fixed && filled[i + 1] && !filled[i + 1]!.fixed && (
                      <button
                        className="btn btn-ghost btn-xs ml-auto shrink-0"
                        title={`Join with document ${i + 2}`}
                        disabled={!may}
                        onClick={() => void apply(join(now, d.index, filled[i + 1]!.index))}
                      >
                        <Merge size={13} aria-hidden />
                        Join {i + 2}
                      </button>
                    )}
                  </div>
                </header>
                <div className="flex flex-wrap gap-x-2 gap-y-3">
                  {d.pages.map((source, page) => sheet(source, { document: d.index, page }, d.fixed))}
                  {!d.fixed && dragged && (
                    <DropPlace
                      at={{ document: d.index, page: d.pages.length }}
                      className="flex w-24 items-center justify-center rounded border border-dashed hair text-[13px] quiet"
                    >
                      To the end
                    </DropPlace>
                  )}
                </div>
              </section>
            ))}
          </div>
          {now.leftOut.length > 0 && (
            <section aria-label="Left out" className="bg-base-200/60 px-6 py-3">
              <h2 className="mb-2 font-semibold quiet">Left out</h2>
              <div className="flex flex-wrap gap-2">{now.leftOut.map((source, page) => sheet(source, { document: -1, page }, false))}</div>
            </section>
          )}
        </div>
      </DndContext>
    </div>
  );
}
