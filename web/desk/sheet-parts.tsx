/** The box that is being drawn. */
export const Drawing = ({ box, scale }: { box: { x: number; y: number; w: number; h: number }; scale: number }) => (
  <div
    className="absolute z-20 border-2 border-[#5a2a5e] bg-[#5a2a5e]/10"
    style={{ left: box.x * scale, top: box.y * scale, width: box.w * scale, height: box.h * scale }}
  />
);

/** Turned for looking only, by quarters, about its top left corner and pushed back into view. */
export function spun(turn: number, { width, height }: { width: number; height: number }, scale: number): React.CSSProperties {
  if (turn === 0) return {};
  const [x, y] = turn === 90 ? [height, 0] : turn === 180 ? [width, height] : [0, width];
  return { transformOrigin: '0 0', transform: `translate(${x * scale}px, ${y * scale}px) rotate(${turn}deg)` };
}
