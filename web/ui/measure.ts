import { useCallback, useRef, useState } from 'react';

let pen: CanvasRenderingContext2D | null | undefined;

/** How wide a text is as the application writes it, in pixels, at a size in pixels. */
export function textWidth(text: string, size: number): number {
  pen ??= document.createElement('canvas').getContext('2d');
  if (!pen) return text.length * size * 0.5;
  pen.font = `${size}px "Source Sans 3 Variable", system-ui, sans-serif`;
  return pen.measureText(text).width;
}

/** How wide an element is now, in pixels, without what its scrollbar takes; given to it as its ref. */
export function useWidth(): [(element: HTMLElement | null) => void, number] {
  const [wide, setWide] = useState(0);
  const watch = useRef<ResizeObserver | null>(null);
  const ref = useCallback((element: HTMLElement | null) => {
    watch.current?.disconnect();
    if (!element) return;
    watch.current = new ResizeObserver(() => setWide(element.clientWidth));
    watch.current.observe(element);
  }, []);
  return [ref, wide];
}
