import { promisify } from 'node:util';
import { gunzip, gzip } from 'node:zlib';

const [pack, unpack] = [promisify(gzip), promisify(gunzip)];
/** The most that kept rows may be when they are taken out again. */
const most = 400 * 1024 * 1024;

/** Rows of text as they are kept with an import. */
export const packRows = (rows: string[][]): Promise<Buffer> => pack(JSON.stringify(rows), { level: 1 });
export const unpackRows = async (kept: Buffer): Promise<string[][]> =>
  JSON.parse((await unpack(kept, { maxOutputLength: most })).toString()) as string[][];
