/** The edge of a column's head: drawn, it makes the column wider or narrower. By keyboard, columns are chosen in their dialog. */
export function ColumnEdge({ width, onWidth }: { width: number; onWidth(width: number): void }) {
  return (
    <span
      aria-hidden
      className="absolute top-0 right-0 h-full w-1.5 cursor-col-resize touch-none hover:bg-primary/40"
      onPointerDown={(e) => {
        e.preventDefault();
        const { currentTarget: edge, pointerId, clientX } = e;
        edge.setPointerCapture(pointerId);
        const move = (m: PointerEvent) => onWidth(width + m.clientX - clientX);
        edge.addEventListener('pointermove', move);
        edge.addEventListener('lostpointercapture', () => edge.removeEventListener('pointermove', move), { once: true });
      }}
    />
  );
}
