/** One bill that was done in this sitting: how long it was before this person, and how many keys they pressed. */
export interface DoneBill {
  id: string;
  number: string;
  seconds: number;
  keys: number;
}
export interface Sitting {
  since: string;
  done: DoneBill[];
}
/** A break of so many minutes begins a new sitting. */
export const pause = 60;

export const summaryOf = ({ done }: Pick<Sitting, 'done'>): { bills: number; seconds: number; keys: number } => ({
  bills: done.length,
  // The usual bill, not the one that lay open over lunch.
  seconds: Math.round(median(done.map((d) => d.seconds))),
  keys: Math.round(median(done.map((d) => d.keys)) * 10) / 10,
});
function median(values: number[]): number {
  if (values.length === 0) return 0;
  const sorted = [...values].sort((a, b) => a - b),
    middle = sorted.length >> 1;
  return sorted.length % 2 ? sorted[middle]! : (sorted[middle - 1]! + sorted[middle]!) / 2;
}
/** "12 done, 38 s and 2 keys each"; nothing before the first. */
export function saidOf(sitting: Pick<Sitting, 'done'>): string {
  const { bills, seconds, keys } = summaryOf(sitting);
  if (bills === 0) return '';
  const time = seconds < 100 ? `${seconds} s` : `${Math.round(seconds / 60)} min`;
  return `${bills} done, ${time} and ${keys} ${keys === 1 ? 'key' : 'keys'} each`;
}

const key = (person: string) => `sitting ${person}`;
/** The sitting that is going on, as this window remembers it. */
export function sittingOf(storage: Storage, person: string, now: Date): Sitting & { last: string } {
  try {
    const kept = JSON.parse(storage.getItem(key(person)) ?? 'null') as (Sitting & { last: string }) | null;
    if (kept && Array.isArray(kept.done) && now.getTime() - Date.parse(kept.last) < pause * 60_000) return kept;
  } catch {
    // Nothing that could be read: a new one begins.
  }
  return { since: now.toISOString(), last: now.toISOString(), done: [] };
}
/** A bill was done: the sitting with it. A bill that was taken back and done again counts once, with all of its time and keys. */
export function noteDone(storage: Storage, person: string, bill: DoneBill, now: Date): Sitting {
  const sitting = sittingOf(storage, person, now);
  const before = sitting.done.find((d) => d.id === bill.id);
  const all = before ? { ...bill, seconds: bill.seconds + before.seconds, keys: bill.keys + before.keys } : bill;
  const next = { ...sitting, last: now.toISOString(), done: [...sitting.done.filter((d) => d.id !== bill.id), all] };
  storage.setItem(key(person), JSON.stringify(next));
  return next;
}
