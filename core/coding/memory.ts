import { codingOf } from '../bills/index.ts';
import { contextsOf } from './contexts.ts';
import type { Coded, Coding, History, LineSaid } from './types.ts';

/** So many lines are remembered in a context: older ones no longer say how it is done. */
export const remembered = 32;

/** What was posted, in memory, as it is learned line by line. */
export class Memory implements History {
  private readonly contexts = new Map<string, Coded[]>();

  of(context: string): readonly Coded[] {
    return this.contexts.get(context) ?? [];
  }

  /** Takes in a posted line; the latest is learned last. */
  learn(line: LineSaid & { day: string }, coding: Partial<Coding>): void {
    const coded: Coded = { supplierId: line.supplierId, day: line.day, ...codingOf(coding) };
    for (const { keys } of contextsOf(line).contexts)
      for (const key of keys) {
        const list = this.contexts.get(key);
        if (!list) this.contexts.set(key, [coded]);
        else {
          list.unshift(coded);
          if (list.length > remembered) list.length = remembered;
        }
      }
  }
}
