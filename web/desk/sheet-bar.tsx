import { AppWindow, ChevronLeft, ChevronRight, Columns2, RotateCw, ScanSearch, ZoomIn, ZoomOut } from 'lucide-react';
import type { PageLook } from './place';

interface Props {
  number: number;
  count: number;
  go(number: number): void;
  percent: number;
  zoom: number;
  setZoom(zoom: number): void;
  near: boolean;
  setNear(near: boolean): void;
  /** Null for a page that was not a picture: it has one look only. */ look: PageLook | null;
  setLook(look: PageLook): void;
  turn(): void;
  /** To the next side of the bill, where it may stand at several. */ move?: (() => void) | undefined;
  /** Into a window of its own. */ apart?: (() => void) | undefined;
}

const looks: [PageLook, string][] = [
  ['came', 'As it came'],
  ['cleaned', 'Cleaned'],
];

/** Below the page: which page, how it is looked at, how large. */
export function SheetBar({ number, count, go, percent, zoom, setZoom, near, setNear, look, setLook, turn, move, apart }: Props) {
  const small = 'btn btn-ghost btn-xs btn-square';
  return (
    <div className="flex h-9 shrink-0 items-center gap-0.5 border-t hair bg-base-200 px-1.5 text-[13px] whitespace-nowrap">
      <button className={small} aria-label="Page before" title="PageUp" disabled={number <= 1} onClick={() => go(number - 1)}>
        <ChevronLeft size={15} />
      </button>
      <span>
        Page {number} of {count}
      </span>
      <button className={small} aria-label="Next page" title="PageDown" disabled={number >= count} onClick={() => go(number + 1)}>
        <ChevronRight size={15} />
      </button>
      {look && (
        <span className="join ml-auto" role="group" aria-label="How the page is shown">
          {looks.map(([value, label]) => (
            <button
              key={value}
              className={`btn join-item btn-xs ${look === value ? 'btn-active' : 'btn-ghost'}`}
              aria-pressed={look === value}
              title="Alt+O"
              onClick={() => setLook(value)}
            >
              {label}
            </button>
          ))}
        </span>
      )}
      <span className={look ? '' : 'ml-auto'} />
      {move && (
        <button className={small} aria-label="Move the page: left, right, above" title="Move the page: left, right, above" onClick={move}>
          <Columns2 size={14} />
        </button>
      )}
      {apart && (
        <button className={small} aria-label="Page in a window of its own" title="Page in a window of its own" onClick={apart}>
          <AppWindow size={14} />
        </button>
      )}
      <button className={small} aria-label="Turn the page" title="Turn the page for looking" onClick={turn}>
        <RotateCw size={14} />
      </button>
      <button
        className={`${small} ${near ? 'btn-active' : ''}`}
        aria-pressed={near}
        aria-label="Close to the field in hand"
        title="Close to the field in hand (Alt+Z)"
        onClick={() => setNear(!near)}
      >
        <ScanSearch size={15} />
      </button>
      <button className={small} aria-label="Smaller" onClick={() => setZoom(Math.max(0.5, zoom / 1.25))}>
        <ZoomOut size={15} />
      </button>
      {!look && (
        <button className="btn btn-ghost btn-xs px-1" title="Fit the width" onClick={() => setZoom(1)}>
          {percent} %
        </button>
      )}
      <button className={small} aria-label="Larger" onClick={() => setZoom(Math.min(4, zoom * 1.25))}>
        <ZoomIn size={15} />
      </button>
    </div>
  );
}
