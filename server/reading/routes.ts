import { toFormat } from '@ledgerline/core/reading';
import { filesOf } from '../http/body.ts';
import type { Api } from '../http/define.ts';
import { Refusal } from '../http/problems.ts';
import { faultNotes, noteOf } from './notes.ts';
import { readLimits } from './pool.ts';
import { inFile } from './result.ts';
import { knownTo } from './service.ts';

export function readingRoutes(api: Api): void {
  api.raw(
    {
      method: 'post',
      path: '/read',
      access: 'signed-in',
      summary: 'A file in, its reading out; nothing is kept (multipart, field "file")',
    },
    async ({ c, services }) => {
      const [file] = await filesOf(c, 'file', readLimits.bytes + 4096, faultNotes['too-large']);
      const result = await services.reader.read(new Uint8Array(await file!.arrayBuffer()), '', await knownTo(services.database.db));
      if (!result.ok) throw new Refusal(422, noteOf(result));
      return toFormat(file!.name, result.parts.map(inFile));
    },
  );
}
