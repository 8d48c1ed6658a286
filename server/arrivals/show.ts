import { notFound } from '../http/problems.ts';
import { shownPicture, UnreadablePicture } from '../imaging/decode.ts';

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
export async function picture(bytes: Buffer, page: number, wide?: number): Promise<Response> {
  if (!Number.isInteger(page) || page < 1) throw notFound('This picture');
  const png = await shownPicture(bytes, page, 0, wide).catch((error: unknown) => {
    throw error instanceof UnreadablePicture ? notFound('This picture') : error;
  });
  return original(png, 'image/png', 'page.png');
}
