import { notFound } from '../http/problems.ts';
import type { Services } from '../services.ts';

/** A file is shown as itself only where it can't carry scripts; all else is a download. */
export function original(bytes: Buffer, mediaType: string, name: string): Response {
  const safe = ['application/pdf', 'image/png', 'image/jpeg'].includes(mediaType);
  return new Response(new Uint8Array(bytes), {
    headers: {
      'content-type': safe ? mediaType : 'application/octet-stream',
      'content-disposition': `${safe ? 'inline' : 'attachment'}; filename*=UTF-8''${encodeURIComponent(name)}`,
      'x-content-type-options': 'nosniff',
      'content-security-policy': "sandbox; default-src 'none'",
      'cache-control': 'private, max-age=3600',
    },
  });
}

/** A page of a picture file as PNG; a page that is not there, or can't be drawn any more, is not found. */
export async function picture(services: Services, bytes: Buffer, page: number, wide?: number): Promise<Response> {
  const png = Number.isInteger(page) && page >= 1 ? await services.reader.scans.show(bytes, page, wide) : null;
  if (!png) throw notFound('This picture');
  return original(Buffer.from(png), 'image/png', 'page.png');
}
