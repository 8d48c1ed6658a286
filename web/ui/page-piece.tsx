import type { Mark } from '@ledgerline/contract';
import { PageView, type ShownPage } from './page-view';

interface Props {
  base: string;
  page: ShownPage;
  /** What is shown of the page, in its points, and how large. */
  box: Omit<Mark, 'page'>;
  scale: number;
  /** A value to be framed in it. */
  framed?: Omit<Mark, 'page'> | null;
}

/** A piece cut out of a page. The page is drawn once for a size; another piece of it is there at once. */
export function PagePiece({ base, page, box, scale, framed }: Props) {
  return (
    <div className="relative overflow-hidden bg-white" style={{ width: box.w * scale, height: box.h * scale }}>
      <div
        className="absolute"
        style={{ left: -box.x * scale, top: -box.y * scale, width: page.width * scale, height: page.height * scale }}
      >
        <PageView base={base} page={page} look="cleaned" scale={scale} onFail={() => undefined} />
        {framed && (
          <div
            className="absolute rounded-[2px] border border-dashed border-[#5a2a5e]"
            style={{
              left: framed.x * scale - 2,
              top: framed.y * scale - 2,
              width: framed.w * scale + 4,
              height: framed.h * scale + 4,
            }}
          />
        )}
      </div>
    </div>
  );
}
