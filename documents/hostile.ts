import { crc32, deflateRawSync, deflateSync } from 'node:zlib';

/** Files that want to be opened and should not be: small ones that become large. Made for tests; nothing in them is an invoice. */

/** A PDF of one page whose content is deflated so many times over, and becomes so many bytes. */
export function deflatedPdf(size: number, times = 1): Uint8Array {
  let content: Buffer = Buffer.alloc(size, 0x20);
  for (let i = 0; i < times; i++) content = deflateSync(content, { level: 9 });
  const filter = `[${'/FlateDecode '.repeat(times)}]`;
  const parts: (string | Buffer)[] = [
    '%PDF-1.7\n1 0 obj\n<</Type/Catalog/Pages 2 0 R>>\nendobj\n',
    '2 0 obj\n<</Type/Pages/Kids[3 0 R]/Count 1>>\nendobj\n',
    '3 0 obj\n<</Type/Page/Parent 2 0 R/MediaBox[0 0 595 842]/Contents 4 0 R>>\nendobj\n',
    `4 0 obj\n<</Length ${content.length}/Filter ${filter}>>\nstream\n`,
    content,
    '\nendstream\nendobj\ntrailer\n<</Root 1 0 R/Size 5>>\n%%EOF\n',
  ];
  return Buffer.concat(parts.map((p) => Buffer.from(p as string, 'latin1')));
}

/** A PNG that says it is so wide and high; its pixels are one line of white over and over. */
export function vastPng(width: number, height: number): Uint8Array {
  const chunk = (type: string, data: Buffer) => {
    const head = Buffer.from(type, 'latin1'),
      out = Buffer.alloc(8);
    out.writeUInt32BE(data.length, 0);
    out.writeUInt32BE(crc32(Buffer.concat([head, data])), 4);
    return Buffer.concat([out.subarray(0, 4), head, data, out.subarray(4)]);
  };
  const header = Buffer.alloc(13);
  header.writeUInt32BE(width, 0);
  header.writeUInt32BE(height, 4);
  header.writeUInt8(1, 8);
  const line = Buffer.alloc(Math.ceil(width / 8) + 1, 0xff);
  line[0] = 0;
  const lines = Math.min(height, Math.ceil(2_000_000 / line.length));
  return Buffer.concat([
    Buffer.from([0x89, 0x50, 0x4e, 0x47, 13, 10, 26, 10]),
    chunk('IHDR', header),
    chunk('IDAT', deflateSync(Buffer.concat(Array.from({ length: lines }, () => line)))),
    chunk('IEND', Buffer.alloc(0)),
  ]);
}

/** A zip of files, each with what it holds; names as they are given, also such as lead out of a folder. */
export function zipOf(files: { name: string; bytes: Uint8Array; /** The size that it says it has. */ said?: number }[]): Uint8Array {
  const locals: Buffer[] = [],
    central: Buffer[] = [];
  let at = 0;
  for (const { name, bytes, said } of files) {
    const packed = deflateRawSync(bytes, { level: 9 }),
      named = Buffer.from(name, 'utf8');
    const fields = Buffer.alloc(26);
    fields.writeUInt16LE(20, 0);
    fields.writeUInt16LE(0x0800, 2);
    fields.writeUInt16LE(8, 4);
    fields.writeUInt32LE(crc32(bytes), 10);
    fields.writeUInt32LE(packed.length, 14);
    fields.writeUInt32LE(said ?? bytes.length, 18);
    fields.writeUInt16LE(named.length, 22);
    const local = Buffer.concat([Buffer.from('PK\x03\x04', 'latin1'), fields, named, packed]);
    const tail = Buffer.alloc(14);
    tail.writeUInt32LE(at, 10);
    central.push(Buffer.concat([Buffer.from('PK\x01\x02\x14\x00', 'latin1'), fields, tail, named]));
    locals.push(local);
    at += local.length;
  }
  const directory = Buffer.concat(central),
    end = Buffer.alloc(22);
  end.write('PK\x05\x06', 0, 'latin1');
  end.writeUInt16LE(files.length, 8);
  end.writeUInt16LE(files.length, 10);
  end.writeUInt32LE(directory.length, 12);
  end.writeUInt32LE(at, 16);
  return Buffer.concat([...locals, directory, end]);
}
