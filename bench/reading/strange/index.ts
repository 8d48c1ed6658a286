import { seeded } from '@ledgerline/documents/random';
import { chance, contentOf, type Content, type Random } from '../content.ts';
import { lookOf, printNumber, type Look } from '../look.ts';
import { Sheet } from '../sheet.ts';
import { bodies, drawBody, type Body, type Printed } from './body.ts';
import { drawHead, headStyles, namesOf } from './head.ts';
import { word } from './words.ts';

export interface Strange {
  content: Content;
  look: Look;
  sheet: Sheet;
  lines: Printed[];
  /** Documents of one structure have one name. */ family: string;
  /** What stands on the page of the head's facts. */ due: string | null;
}

const endings = ['right', 'left', 'box on top', 'table', 'across'] as const;

/** A document of a structure that no list knows, in labels that no lexicon was made from. The same seed gives the same document. */
export function strange(seed: number): Strange {
  const r = seeded(seed * 6007 + 71);
  const content = namesOf(contentOf(r), r),
    look = lookOf(r, content),
    sheet = new Sheet(look);
  const body: Body = r.pick(bodies),
    head = r.pick(headStyles),
    ending = r.pick(endings);
  const due = content.dueDate && chance(r, 0.75) ? content.dueDate : null;
  drawHead(sheet, { ...content, dueDate: due }, r, head, ending === 'box on top');
  const lines = drawBody(sheet, content, r, body);
  drawEnd(sheet, content, r, ending);
  return { content, look, sheet, lines, family: `strange ${body} ${head}`, due };
}

function drawEnd(s: Sheet, c: Content, r: Random, ending: (typeof endings)[number]): void {
  const { look } = s,
    line = look.size * 1.5,
    num = (v: string) => printNumber(v, look);
  if (s.y > s.height - 170) {
    s.nextPage();
    s.y = 60;
  }
  s.y += 10;
  const rows: [string, string, boolean?][] = c.charges.map((x) => [word(r, 'charge'), x.amount]);
  if (c.pricesIncludeTax)
    rows.push([word(r, 'gross'), c.gross, true], [`${word(r, 'tax')} ${c.taxes[0]!.rate}%`, c.tax], [word(r, 'net'), c.net]);
  else {
    rows.push([word(r, 'net'), c.net]);
    for (const t of c.taxes)
      rows.push([r.pick([`${word(r, 'tax')} ${num(t.rate)}%`, `${word(r, 'tax')} ${num(t.rate)} % / ${num(t.net)}`]), t.tax]);
    rows.push([word(r, 'gross'), c.gross, true]);
  }
  if (ending === 'table' && c.taxes.length > 1) {
    for (const t of c.taxes) {
      for (const [i, text] of [`${num(t.rate)} %`, num(t.net), num(t.tax)].entries())
        s.text(text, s.left + 60 + i * 70, s.y, { align: 'right' });
      s.y += line;
    }
  }
  if (ending === 'across') {
    const step = (s.right - s.left) / rows.length;
    for (const [i, [label, value]] of rows.entries()) {
      s.text(label, s.left + i * step, s.y, { size: look.size - 1 });
      s.text(num(value), s.left + i * step, s.y + line);
    }
    s.y += line * 2;
    return;
  }
  for (const [label, value, bold] of rows) {
    if (ending === 'left') {
      s.text(num(value), s.left + 70, s.y, { align: 'right', bold: bold ?? false });
      s.text(label, s.left + 84, s.y);
    } else {
      s.text(label, s.width * 0.56, s.y);
      s.text(num(value), s.right, s.y, { align: 'right', bold: bold ?? false });
    }
    s.y += line;
  }
}
