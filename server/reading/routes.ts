import { toFormat } from '@ledgerline/core/reading';
import type { Api } from '../http/define.ts';
import { Refusal } from '../http/problems.ts';
import { faultNotes, noteOf } from './notes.ts';
import { readLimits } from './pool.ts';
import { inFile } from './result.ts';

export function readingRoutes(api: Api): void {
  api.raw(
    {
      method: 'post',
      path: '/read',
      access: 'signed-in',
      summary: 'A file in, its reading out; nothing is kept (multipart, field "file")',
    },
    async ({ c, services }) => {
      if (Number(c.req.header('content-length') ?? 0) > readLimits.bytes + 4096) throw new Refusal(413, faultNotes['too-large']);
      const form = await c.req.parseBody().catch(() => {
        throw new Refusal(400, 'The upload broke off. Please try again.');
      });
      const file = form['file'];
      if (!(file instanceof File)) throw new Refusal(400, 'No file was chosen.');
      const result = await services.reader.read(new Uint8Array(await file.arrayBuffer()));
      if (!result.ok) throw new Refusal(422, noteOf(result));
      return toFormat(file.name, result.parts.map(inFile));
    },
  );
}
