import { looksLikeXml } from '@ledgerline/core/einvoice';
import { isHeic } from '../imaging/decode.ts';

/** What a file is by its first bytes; its name and what its sender calls it do not count. */
export type FileType = 'pdf' | 'xml' | 'picture' | 'zip' | 'other';

const starts = (bytes: Uint8Array, ...heads: number[][]): boolean => heads.some((head) => head.every((b, i) => bytes[i] === b));

const riff = [0x52, 0x49, 0x46, 0x46];
const webp = [0x57, 0x45, 0x42, 0x50];

const mediaTypes: Record<string, string> = {
  pdf: 'application/pdf',
  png: 'image/png',
  jpg: 'image/jpeg',
  jpeg: 'image/jpeg',
  tif: 'image/tiff',
  tiff: 'image/tiff',
  webp: 'image/webp',
  heic: 'image/heic',
  xml: 'application/xml',
  zip: 'application/zip',
  eml: 'message/rfc822',
};
/** What a file calls itself by its name, where nothing else says so. */
export const mediaTypeOf = (name: string): string => mediaTypes[name.split('.').pop()!.toLowerCase()] ?? 'application/octet-stream';

export function fileType(bytes: Uint8Array): FileType {
  if (Buffer.from(bytes.subarray(0, 1024)).includes('%PDF-')) return 'pdf';
  if (starts(bytes, [0x89, 0x50, 0x4e, 0x47], [0xff, 0xd8, 0xff], [0x49, 0x49, 0x2a, 0x00], [0x4d, 0x4d, 0x00, 0x2a])) return 'picture';
  if ((starts(bytes, riff) && starts(bytes.subarray(8), webp)) || isHeic(bytes)) return 'picture';
  if (starts(bytes, [0x50, 0x4b, 0x03, 0x04], [0x50, 0x4b, 0x05, 0x06])) return 'zip';
  return looksLikeXml(bytes) ? 'xml' : 'other';
}
