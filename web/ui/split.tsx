import { useRef, type ReactNode } from 'react';

interface Props {
  /** The share of the first part, 0 to 1, and how little either may have. */
  share: number;
  least: number;
  /** One above the other, not side by side. */
  stacked: boolean;
  /** The first part stands at the end. */
  turned: boolean;
  label: string;
  onShare(share: number): void;
  first: ReactNode;
  second: ReactNode;
}

/** Two parts with a bar between them that can be drawn, or moved by the arrow keys. Without a first part (null) the second has all the room. */
export function Split({ share, least, stacked, turned, label, onShare, first, second }: Props) {
  const room = useRef<HTMLDivElement>(null);
  const moved = (e: React.PointerEvent) => {
    if (!e.currentTarget.hasPointerCapture(e.pointerId) || !room.current) return;
    const r = room.current.getBoundingClientRect();
    const at = stacked ? (e.clientY - r.top) / r.height : (e.clientX - r.left) / r.width;
    onShare(Math.min(1 - least, Math.max(least, turned ? 1 - at : at)));
  };
  const keys = (e: React.KeyboardEvent) => {
    const step = { ArrowLeft: -0.02, ArrowUp: -0.02, ArrowRight: 0.02, ArrowDown: 0.02 }[e.key];
    if (!step || e.altKey || e.ctrlKey) return;
    e.preventDefault();
    onShare(Math.min(1 - least, Math.max(least, share + (turned ? -step : step))));
  };
  return (
    <div ref={room} className={`flex min-h-0 grow ${stacked ? 'flex-col' : turned ? 'flex-row-reverse' : ''}`}>
      <div className="min-h-0 min-w-0 shrink-0" hidden={first === null} style={{ flexBasis: `calc(${share * 100}% - 3px)` }}>
        {first}
      </div>
      <div
        role="separator"
        hidden={first === null}
        tabIndex={-1}
        aria-label={label}
        aria-orientation={stacked ? 'horizontal' : 'vertical'}
        aria-valuenow={Math.round(share * 100)}
        className={`shrink-0 touch-none bg-base-300 hover:bg-primary/50 focus-visible:bg-primary ${stacked ? 'h-[5px] cursor-row-resize' : 'w-[5px] cursor-col-resize'}`}
        onPointerDown={(e) => {
          e.preventDefault();
          e.currentTarget.setPointerCapture(e.pointerId);
        }}
        onPointerMove={moved}
        onKeyDown={keys}
      />
      <div className="min-h-0 min-w-0 grow basis-0">{second}</div>
    </div>
  );
}
