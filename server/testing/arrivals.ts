import { takeIn } from '../arrivals/take.ts';
import type { World } from './world.ts';

/** A file as a test gives it; text is taken as UTF-8. */
export interface Given {
  name: string;
  mediaType?: string;
  bytes: Uint8Array | string;
}

/** Takes files in as one arrival of a company, has all of it read, and gives the arrival's id. */
export async function takeFiles(
  world: World,
  files: Given[],
  { company = 'MBG', channel = 'upload' }: { company?: string; channel?: 'upload' | 'folder' } = {},
): Promise<string> {
  const id = await takeIn(world.services, {
    companyId: world.master.company(company).id,
    channel,
    sender: null,
    subject: channel === 'folder' ? files[0]!.name : null,
    personId: null,
    note: null,
    files: files.map(({ name, mediaType = 'application/octet-stream', bytes }) => ({
      name,
      mediaType,
      bytes: typeof bytes === 'string' ? new TextEncoder().encode(bytes) : bytes,
    })),
  });
  await world.drain();
  return id!;
}

/** What stands in the database of a test, as plain rows; and what became of an arrival. */
export function looking(world: () => World) {
  const rows = async (text: string, ...values: unknown[]) => (await world().owner.query(text, values)).rows;
  const billsOf = (arrivalId: string) =>
    rows(
      `select b.* from bill b join document d on d.id = b.document_id where d.arrival_id = $1 and b.stage <> 'discarded' order by d.position, d.part`,
      arrivalId,
    );
  return {
    rows,
    billsOf,
    documents: (arrivalId: string) => rows('select * from document where arrival_id = $1 order by position, part', arrivalId),
    numbers: async (arrivalId: string): Promise<string[]> => (await billsOf(arrivalId)).map((b) => b.invoice_number),
  };
}
