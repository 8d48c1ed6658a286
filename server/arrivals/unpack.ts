import { simpleParser, type Attachment } from 'mailparser';
import { fromBuffer, type Entry, type ZipFile } from 'yauzl';
import { fileType, mediaTypeOf } from '../reading/filetype.ts';
import type { ArrivedFile } from './take.ts';

const megabyte = 1024 * 1024;
/** What a message or a zip may hold at most, all levels together; and by how much one zip may grow, beyond a few megabytes. */
export interface UnpackLimits {
  files: number;
  bytes: number;
  depth: number;
  ratio: number;
}
export const unpackLimits: UnpackLimits = { files: 200, bytes: 300 * megabyte, depth: 3, ratio: 100 };
const alwaysAllowed = 8 * megabyte;

interface Budget {
  files: number;
  bytes: number;
  ratio: number;
}
class TooMuch extends Error {}

const isMessage = (file: ArrivedFile): boolean => file.mediaType === 'message/rfc822' || /\.eml$/i.test(file.name);
const isZip = (file: ArrivedFile): boolean => fileType(file.bytes) === 'zip' && (/\.zip$/i.test(file.name) || /zip/.test(file.mediaType));

/** Whether a file is taken apart. */
export const isPacked = (file: ArrivedFile): boolean => isZip(file) || isMessage(file);

export const fileOf = (a: Attachment, index: number): ArrivedFile => ({
  name:
    a.filename ??
    `attachment-${index + 1}${a.contentType === 'application/pdf' ? '.pdf' : a.contentType === 'message/rfc822' ? '.eml' : ''}`,
  mediaType: a.contentType,
  bytes: new Uint8Array(a.content),
  inline: a.contentType.startsWith('image/') && (a.related === true || (a.contentDisposition === 'inline' && Boolean(a.cid))),
});

/** Opens zips and forwarded messages, also inside each other, within limits. What can't be opened is kept whole and says why. */
export async function unpack(files: ArrivedFile[], limits: UnpackLimits = unpackLimits): Promise<ArrivedFile[]> {
  const budget: Budget = { files: limits.files, bytes: limits.bytes, ratio: limits.ratio };
  return openAll(files, limits.depth, budget);
}

/** One after another, so that no more than one packed file is in memory beside what came out already. */
async function openAll(files: ArrivedFile[], depth: number, budget: Budget): Promise<ArrivedFile[]> {
  const opened: ArrivedFile[] = [];
  for (const file of files) opened.push(...(await open(file, depth, budget)));
  return opened;
}

async function open(file: ArrivedFile, depth: number, budget: Budget): Promise<ArrivedFile[]> {
  const zip = isZip(file);
  if (!zip && !isMessage(file)) return [file];
  if (depth === 0)
    return [
      { ...file, kept: { state: 'unreadable', note: 'This file is packed too many times over to be opened. It is kept as it came.' } },
    ];
  try {
    const inside = zip ? await filesOfZip(file, budget) : await filesOfMessage(file, budget);
    const opened = await openAll(inside, depth - 1, budget);
    const papers = opened.filter((f) => !f.inline && !f.kept).length;
    const what = zip ? 'Packed files' : 'A forwarded message';
    const note =
      papers === 0
        ? `${what} with nothing to read inside. It is kept as it came.`
        : `${what}, taken apart: ${papers === 1 ? 'one file' : `${papers} files`}.`;
    return [{ ...file, kept: { state: papers === 0 ? 'unreadable' : 'aside', note } }, ...opened];
  } catch (error) {
    const note =
      error instanceof TooMuch
        ? 'This file holds too much to be opened. It is kept as it came.'
        : `This ${zip ? 'zip file is damaged or locked' : 'message is damaged'} and cannot be opened. Ask the sender for the files themselves.`;
    return [{ ...file, kept: { state: 'unreadable', note } }];
  }
}

async function filesOfMessage(file: ArrivedFile, budget: Budget): Promise<ArrivedFile[]> {
  const message = await simpleParser(Buffer.from(file.bytes), {
    skipImageLinks: true,
    skipTextLinks: true,
    maxHtmlLengthToParse: 2 * megabyte,
  });
  return message.attachments.map(fileOf).map((f) => spend(f, budget));
}

function spend(file: ArrivedFile, budget: Budget): ArrivedFile {
  budget.files -= 1;
  budget.bytes -= file.bytes.length;
  if (budget.files < 0 || budget.bytes < 0) throw new TooMuch();
  return file;
}

function filesOfZip(file: ArrivedFile, budget: Budget): Promise<ArrivedFile[]> {
  return new Promise((done, fail) => {
    fromBuffer(Buffer.from(file.bytes), { lazyEntries: true, validateEntrySizes: true }, (error, zip) => {
      if (error || !zip) return fail(error ?? new Error('no zip'));
      const found: ArrivedFile[] = [];
      // Real files shrink to a hundredth at best; what grows more was made to grow.
      const left: Budget = { ...budget, bytes: Math.min(budget.bytes, alwaysAllowed + budget.ratio * file.bytes.length) };
      zip.on('error', fail).on('end', () => done(found));
      zip.on('entry', (entry: Entry) => {
        const name = entry.fileName.split('/').pop() ?? '';
        if (name === '' || name.startsWith('.') || entry.fileName.startsWith('__MACOSX/')) return zip.readEntry();
        if (entry.uncompressedSize > left.bytes || left.files <= 0) return fail(new TooMuch());
        bytesOf(zip, entry, left)
          .then((bytes) => {
            spend({ name, mediaType: mediaTypeOf(name), bytes }, left);
            found.push(spend({ name, mediaType: mediaTypeOf(name), bytes }, budget));
            zip.readEntry();
          })
          .catch(fail);
      });
      zip.readEntry();
    });
  });
}

function bytesOf(zip: ZipFile, entry: Entry, budget: Budget): Promise<Uint8Array> {
  return new Promise((done, fail) => {
    zip.openReadStream(entry, (error, stream) => {
      if (error || !stream) return fail(error ?? new Error('no stream'));
      const chunks: Buffer[] = [];
      let size = 0;
      stream.on('data', (chunk: Buffer) => {
        size += chunk.length;
        if (size > budget.bytes) {
          stream.destroy();
          fail(new TooMuch());
        } else chunks.push(chunk);
      });
      stream.on('error', fail).on('end', () => done(new Uint8Array(Buffer.concat(chunks))));
    });
  });
}
