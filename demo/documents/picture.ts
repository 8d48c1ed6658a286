import sharp from 'sharp';
import type { Invoice } from '../invoice.ts';

const escape = (text: string): string => text.replace(/&/g, '&amp;').replace(/</g, '&lt;');

/** A page as a picture, as a phone or a fax delivers it: words that no text layer has. `format` tiff gives one page for each invoice. */
export async function pictureOf(invoices: Invoice[], format: 'png' | 'jpeg' | 'tiff' = 'png'): Promise<Uint8Array> {
  const pages = await Promise.all(
    invoices.map((invoice) => {
      const rows = [
        invoice.supplier.name,
        invoice.supplier.street,
        invoice.supplier.town,
        '',
        `${invoice.kind === 'credit-note' ? 'Credit note' : 'Invoice'} ${invoice.number}`,
        `Date ${invoice.issueDate}`,
        `To ${invoice.buyer.name}`,
        '',
        ...invoice.lines.map((l) => `${l.quantity}  ${l.text}  ${l.price}  ${l.amount}`),
        '',
        `Net ${invoice.net}`,
        `VAT ${invoice.tax}`,
        `Total ${invoice.currency} ${invoice.gross}`,
      ];
      const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="1240" height="1754"><rect width="1240" height="1754" fill="#f6f3ec"/>${rows.map((row, i) => `<text x="120" y="${190 + i * 52}" font-family="serif" font-size="${i === 0 ? 46 : 30}" fill="#26242c">${escape(row)}</text>`).join('')}</svg>`;
      return sharp(Buffer.from(svg)).flatten().toColourspace('srgb').raw().toBuffer({ resolveWithObject: true });
    }),
  );
  const { width, height, channels } = pages[0]!.info;
  const stacked = sharp(Buffer.concat(pages.map((p) => p.data)), {
    raw: { width, height: height * pages.length, channels, ...(format === 'tiff' ? { pageHeight: height } : {}) },
  });
  return new Uint8Array(
    await (format === 'tiff' ? stacked.tiff({ compression: 'lzw' }) : format === 'jpeg' ? stacked.jpeg() : stacked.png()).toBuffer(),
  );
}
