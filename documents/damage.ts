import { seeded } from './random.ts';

/** A file with seeded damage: bytes changed, pieces cut out, doubled, swapped or cut off, numbers blown up. */
export function damaged(bytes: Uint8Array, seed: number): Uint8Array {
  const r = seeded(seed * 2654435761 + 1);
  let out = Buffer.from(bytes);
  for (let n = r.int(1, 12); n > 0; n--) {
    const at = r.int(0, Math.max(0, out.length - 1)),
      length = Math.min(r.int(1, 400), out.length - at);
    switch (r.int(0, 6)) {
      case 0:
        out[at] = r.int(0, 255);
        break;
      case 1:
        out = Buffer.concat([out.subarray(0, at), out.subarray(at + length)]);
        break;
      case 2:
        out = Buffer.concat([out.subarray(0, at + length), out.subarray(at)]);
        break;
      case 3:
        out.fill(r.int(0, 255), at, at + Math.min(length, 20));
        break;
      case 4:
        if (r.next() < 0.2) out = out.subarray(0, Math.max(10, at));
        break;
      case 5: {
        const text = out.toString('latin1'),
          digit = text.slice(at).search(/\d+/);
        if (digit >= 0)
          out = Buffer.from(
            text.slice(0, at + digit) + r.pick(['99999999999', '-1', '0', '2147483648']) + text.slice(at + digit).replace(/^\d+/, ''),
            'latin1',
          );
        break;
      }
      default:
        out = Buffer.concat([
          out.subarray(0, at),
          Buffer.from(r.pick(['<<', '>>', ' obj ', ' R ', 'stream', '<', '&', '\0', '[[[[', '/Kids [1 0 R]'])),
          out.subarray(at),
        ]);
    }
  }
  return new Uint8Array(out);
}
