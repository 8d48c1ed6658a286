import { configureStore } from '@reduxjs/toolkit';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { applyAll, cellPath, emptyCells, Misfit, touches, type Operation } from '@ledgerline/core/bills';
import type { Bill } from '@ledgerline/contract';
import { keepTyped, typedBefore } from './kept';
import { Saver, type Outside } from './saver';
import { chosen, deskSlice, edited, opened, redone, shownOf, undone, type Held } from './index';

const line = (id: string, amount: string) => ({ ...emptyCells(), id, kind: 'line' as const, description: id, amount, marks: {} });
const aBill = (id: string): Bill => ({
  id,
  companyId: 'c',
  documentId: null,
  stage: 'read',
  kind: 'invoice',
  supplierId: null,
  supplierName: null,
  supplierTaxId: null,
  supplierIban: null,
  supplierReason: null,
  invoiceNumber: 'A-1',
  issueDate: null,
  dueDate: null,
  terms: null,
  currency: 'GBP',
  purchaseOrder: null,
  net: null,
  tax: null,
  gross: null,
  pricesIncludeTax: false,
  marks: {},
  unsure: [],
  note: null,
  rowVersion: 1,
  createdAt: '2026-11-23T10:00:00Z',
  sentBy: null,
  approvedBy: null,
  madeFrom: null,
  dimensions: [],
  taxByRates: null,
  shared: [],
  turn: null,
  assignee: null,
  asideUntil: null,
  discountUntil: null,
  notes: [],
  workedOn: [],
  lines: [line('l1', '1'), line('l2', '2')],
  exceptions: [],
  settled: [],
  events: [],
  named: [],
  arrival: null,
  entry: null,
});

/** A server with two bills that does what it is told: takes, refuses what is "bad", is away, or keeps an answer back. */
class FakeServer {
  bills: Record<string, Bill> = { one: aBill('one'), two: aBill('two') };
  away = false;
  holding = false;
  held: (() => void)[] = [];
  async send(id: string, rowVersion: number, ops: Operation[]): Promise<Bill> {
    if (this.holding) await new Promise<void>((go) => this.held.push(go));
    if (this.away) throw { status: 'FETCH_ERROR' };
    const now = this.bills[id]!;
    if (now.rowVersion !== rowVersion) throw { status: 409, data: { kind: 'changed' } };
    if (ops.some((op) => 'value' in op && op.value === 'bad')) throw { status: 400, data: { title: 'No.' } };
    this.took(id, ops);
    return (this.bills[id] = { ...applyAll(now, ops), rowVersion: rowVersion + 1 });
  }
  took: (id: string, ops: Operation[]) => void = () => undefined;
  /** Somebody else saves. */
  other(id: string, op: Operation): void {
    const now = this.bills[id]!;
    try {
      this.bills[id] = { ...applyAll(now, [op]), rowVersion: now.rowVersion + 1 };
    } catch (error) {
      if (!(error instanceof Misfit)) throw error;
    }
  }
}

function desk() {
  const server = new FakeServer();
  const store = configureStore({ reducer: { desk: deskSlice.reducer } });
  const waiting = new Set<() => void>();
  const outside: Outside = {
    send: (bill, body) => server.send(bill.id, body.rowVersion, body.operations as Operation[]),
    async load(bill) {
      if (server.away) throw { status: 'FETCH_ERROR' };
      return server.bills[bill.id]!;
    },
    failure(error) {
      const { status, data } = error as { status: unknown; data?: { kind?: string; title?: string } };
      return status === 'FETCH_ERROR'
        ? { kind: 'away', sentence: 'away' }
        : data?.kind === 'changed'
          ? { kind: 'overtaken', sentence: '' }
          : { kind: 'refused', sentence: data?.title ?? '' };
    },
    later(_, work) {
      const one = () => {
        waiting.delete(one);
        work();
      };
      waiting.add(one);
      return () => waiting.delete(one);
    },
  };
  const saver = new Saver(store, outside);
  const held = (id: string): Held => store.getState().desk.held[id]!;
  return {
    server,
    store,
    saver,
    held,
    shown: (id: string) => shownOf(held(id)),
    open: (id: string) => store.dispatch(opened({ bill: server.bills[id]! })),
    edit(id: string, ...operations: Operation[]) {
      store.dispatch(edited({ id, operations }));
      if (['dirty', 'offline'].includes(held(id).save)) saver.soon(id);
    },
    /** Lets all timers go off, and what follows from them happen. */
    async tick() {
      for (const work of [...waiting]) work();
      await settle();
    },
    async release() {
      for (const go of server.held.splice(0)) go();
      await settle();
    },
  };
}
const settle = async () => {
  for (let i = 0; i < 12; i++) await Promise.resolve();
};
type Desk = ReturnType<typeof desk>;
const set = (field: 'terms' | 'purchaseOrder' | 'gross', value: string): Operation => ({ do: 'set', field, value });

describe('a bill on the desk', () => {
  it('shows at once what is typed and saves it by itself', async () => {
    const d = desk();
    d.open('one');
    d.edit('one', set('terms', 'net 7'));
    expect([d.shown('one').terms, d.server.bills['one']!.terms]).toEqual(['net 7', null]);
    await d.tick();
    expect([d.server.bills['one']!.terms, d.held('one').save]).toEqual(['net 7', 'clean']);
  });
  it('keeps what is typed while a save is on its way on top of its answer', async () => {
    const d = desk();
    d.open('one');
    d.server.holding = true;
    d.edit('one', set('terms', 'net 7'));
    await d.tick();
    d.edit('one', set('purchaseOrder', 'PO-1'));
    d.server.holding = false;
    await d.release();
    await d.tick();
    expect(d.server.bills['one']).toMatchObject({ terms: 'net 7', purchaseOrder: 'PO-1' });
  });
  it('an answer that comes after another bill was opened changes its own bill only', async () => {
    const d = desk();
    d.open('one');
    d.server.holding = true;
    d.edit('one', set('terms', 'net 7'));
    await d.tick();
    d.open('two');
    d.server.holding = false;
    await d.release();
    expect([d.shown('two').id, d.shown('two').terms, d.held('one').base.terms]).toEqual(['two', null, 'net 7']);
  });
  it('what the server refuses stays on the desk, and goes with the next change that it takes', async () => {
    const d = desk();
    d.open('one');
    d.edit('one', set('terms', 'bad'));
    await d.tick();
    expect([d.held('one').save, d.held('one').sentence, d.shown('one').terms]).toEqual(['refused', 'No.', 'bad']);
    expect(await d.saver.flush('one')).toBe(false);
    d.edit('one', set('terms', 'net 9'));
    await d.tick();
    expect([d.server.bills['one']!.terms, d.held('one').save]).toEqual(['net 9', 'clean']);
  });
  it('is tried again while the server is away, until it is back', async () => {
    const d = desk();
    d.open('one');
    d.server.away = true;
    d.edit('one', set('terms', 'net 7'));
    for (let i = 0; i < 4; i++) await d.tick();
    expect([d.held('one').save, d.shown('one').terms]).toEqual(['offline', 'net 7']);
    d.server.away = false;
    await d.tick();
    expect(d.server.bills['one']!.terms).toBe('net 7');
  });
  it('somebody else’s change of another field is taken over without a question', async () => {
    const d = desk();
    d.open('one');
    d.server.other('one', set('purchaseOrder', 'PO-9'));
    d.edit('one', set('terms', 'net 7'));
    await d.tick();
    expect(d.server.bills['one']).toMatchObject({ terms: 'net 7', purchaseOrder: 'PO-9' });
    expect(d.shown('one')).toMatchObject({ terms: 'net 7', purchaseOrder: 'PO-9' });
  });
  it.each(['mine', 'theirs'] as const)('the same field changed by both is asked about with both values; %s is what stays', async (take) => {
    const d = desk();
    d.open('one');
    d.server.other('one', set('terms', 'net 30'));
    d.edit('one', set('terms', 'net 7'), set('purchaseOrder', 'PO-1'));
    await d.tick();
    expect(d.held('one').save).toBe('conflict');
    expect(d.held('one').clashes).toEqual([{ path: 'terms', was: null, theirs: 'net 30', mine: 'net 7' }]);
    expect(d.server.bills['one']!.terms).toBe('net 30');
    d.store.dispatch(chosen({ id: 'one', path: 'terms', take }));
    await d.saver.flush('one');
    expect(d.server.bills['one']).toMatchObject({ terms: take === 'mine' ? 'net 7' : 'net 30', purchaseOrder: 'PO-1' });
  });
  it('a row that somebody removed while it was worked on here is asked about, and comes back whole for “mine”', async () => {
    const d = desk();
    d.open('one');
    d.server.other('one', { do: 'remove-line', line: 'l2' });
    d.edit('one', { do: 'set-cell', line: 'l2', field: 'amount', value: '9' });
    await d.tick();
    expect(d.held('one').clashes).toEqual([{ path: 'l2', was: 'l2 · 2', theirs: null, mine: 'l2 · 9' }]);
    d.store.dispatch(chosen({ id: 'one', path: 'l2', take: 'mine' }));
    await d.saver.flush('one');
    expect(d.server.bills['one']!.lines.map((l) => [l.id, l.amount])).toEqual([
      ['l1', '1'],
      ['l2', '9'],
    ]);
  });
  it('a newer bill that arrives by itself shows, and goes beneath what is typed', () => {
    const d = desk();
    d.open('one');
    d.server.other('one', set('purchaseOrder', 'PO-9'));
    d.open('one');
    expect(d.shown('one').purchaseOrder).toBe('PO-9');
    d.edit('one', set('terms', 'net 7'));
    d.server.other('one', set('gross', '5'));
    d.open('one');
    expect(d.shown('one')).toMatchObject({ terms: 'net 7', gross: '5' });
  });
  it('undo and redo go through header and rows, and are saved like anything else', async () => {
    const d = desk();
    d.open('one');
    d.edit('one', set('terms', 'net 7'));
    d.edit('one', { do: 'remove-line', line: 'l1' });
    await d.tick();
    d.store.dispatch(undone('one'));
    d.store.dispatch(undone('one'));
    expect([d.shown('one').terms, d.shown('one').lines.map((l) => l.id)]).toEqual([null, ['l1', 'l2']]);
    d.store.dispatch(redone('one'));
    await d.saver.flush('one');
    expect(d.server.bills['one']).toMatchObject({ terms: 'net 7', lines: [{ id: 'l1' }, { id: 'l2' }] });
  });
  it('what is not saved survives a reload, and is asked about if somebody changed the same meanwhile', () => {
    const store = new Map<string, string>();
    const storage = {
      getItem: (k: string) => store.get(k) ?? null,
      setItem: (k: string, v: string) => void store.set(k, v),
      removeItem: (k: string) => void store.delete(k),
    } as unknown as Storage;
    const d = desk();
    d.open('one');
    d.edit('one', set('terms', 'net 7'));
    keepTyped(storage, 'ines', d.store.getState().desk, 'one');
    expect(typedBefore(storage, 'tobias', 'one')).toBe(undefined);
    const again = desk();
    again.server.other('one', set('terms', 'net 30'));
    again.store.dispatch(opened({ bill: again.server.bills['one']!, restored: typedBefore(storage, 'ines', 'one')! }));
    expect([again.shown('one').terms, again.held('one').clashes.map((c) => c.theirs)]).toEqual(['net 7', ['net 30']]);
  });
});

/** What a person must find: for every field of every bill the value they typed last, until it is on the server or they chose otherwise. */
interface Model {
  mine: Map<string, string>;
  open: string;
}
const fields = ['terms', 'purchaseOrder', 'gross', 'l1.amount', 'l2.amount'] as const;
const op = (path: string, value: string): Operation => {
  const [id, cell] = path.split('.');
  return cell ? { do: 'set-cell', line: id!, field: 'amount', value } : { do: 'set', field: path as 'terms', value };
};
const valueOf = (bill: Bill, path: string): unknown => {
  const [id, cell] = path.split('.');
  return cell ? bill.lines.find((l) => l.id === id)?.amount : bill[path as 'terms'];
};
const nothingLost = (m: Model, d: Desk) => {
  for (const [key, value] of m.mine) {
    const [id, path] = key.split(' ') as [string, string];
    expect(valueOf(d.shown(id), path), `${key} shown`).toBe(value);
  }
};
const command = (name: string, run: (m: Model, d: Desk) => Promise<void> | void): fc.AsyncCommand<Model, Desk> => ({
  check: () => true,
  async run(m, d) {
    await run(m, d);
    await settle();
    nothingLost(m, d);
  },
  toString: () => name,
});
/** Answers all open questions: theirs where the flag says so, which gives up what was typed there. */
function answer(m: Model, d: Desk, id: string, takeTheirs: boolean): void {
  for (const clash of d.held(id).clashes) {
    d.store.dispatch(chosen({ id, path: clash.path, take: takeTheirs ? 'theirs' : 'mine' }));
    if (takeTheirs) for (const f of fields) if (f === clash.path || f.split('.')[0] === clash.path) m.mine.delete(`${id} ${f}`);
  }
}
const field = fc.constantFrom(...fields);
const commands = fc.commands(
  [
    fc.tuple(field, fc.constantFrom('1', '2', '3', 'bad')).map(([f, v]) =>
      command(`type ${f}=${v}`, (m, d) => {
        // A row that somebody removed is not there to be typed in.
        if (f.includes('.') && !d.shown(m.open).lines.some((l) => l.id === f.split('.')[0])) return;
        d.edit(m.open, op(f, v));
        m.mine.set(`${m.open} ${f}`, v);
      }),
    ),
    fc
      .tuple(field, fc.constantFrom('7', '8'))
      .map(([f, v]) => command(`somebody else ${f}=${v}`, (m, d) => d.server.other(m.open, op(f, v)))),
    fc.constant(command('somebody else removes l2', (m, d) => d.server.other(m.open, { do: 'remove-line', line: 'l2' }))),
    fc.constantFrom(true, false).map((away) =>
      command(away ? 'the server goes away' : 'the server comes back', (_, d) => {
        d.server.away = away;
      }),
    ),
    fc.constantFrom(true, false).map((holding) =>
      command(holding ? 'answers are kept back' : 'answers come', async (_, d) => {
        d.server.holding = holding;
        if (!holding) await d.release();
      }),
    ),
    fc.constant(command('time passes', (_, d) => d.tick())),
    fc.constantFrom('one', 'two').map((id) =>
      command(`opens ${id}`, (m, d) => {
        m.open = id;
        if (!d.server.away) d.open(id);
      }),
    ),
    fc.boolean().map((theirs) => command(`chooses ${theirs ? 'theirs' : 'mine'}`, (m, d) => answer(m, d, m.open, theirs))),
  ],
  { maxCommands: 40 },
);
it('what is typed while both values are shown into a row that they removed is asked about too', async () => {
  const d = desk();
  d.open('one');
  d.server.other('one', { do: 'remove-line', line: 'l2' });
  d.server.other('one', op('gross', '7'));
  d.edit('one', op('gross', '1'));
  d.open('one');
  expect(d.held('one').clashes.map((c) => c.path)).toEqual(['gross']);
  d.edit('one', op('l2.amount', '1'));
  expect(d.held('one').clashes.map((c) => c.path)).toEqual(['gross', 'l2']);
});
it('what is put right while a refusal is on its way is sent again by itself', async () => {
  const d = desk();
  d.open('one');
  d.server.holding = true;
  d.edit('one', op('gross', 'bad'));
  await d.tick();
  d.edit('one', op('gross', '1'));
  d.server.holding = false;
  await d.release();
  await settle();
  expect([d.held('one').save, d.server.bills['one']!.gross]).toEqual(['clean', '1']);
});
describe('whatever happens', () => {
  it('nothing typed is lost, and in the end the server has it', () =>
    fc.assert(
      fc.asyncProperty(commands, async (all) => {
        const d = desk();
        const m: Model = { mine: new Map(), open: 'one' };
        d.open('one');
        d.open('two');
        // What is on the server is no longer the desk's to keep.
        d.server.took = (id, ops) => {
          for (const o of ops) {
            const value = o.do === 'add-line' ? o.cells?.amount : 'value' in o ? o.value : null;
            const path = o.do === 'add-line' ? cellPath(o.line, 'amount') : touches(o);
            if (m.mine.get(`${id} ${path}`) === value) m.mine.delete(`${id} ${path}`);
          }
        };
        await fc.asyncModelRun(() => ({ model: m, real: d }), all);
        d.server.away = false;
        d.server.holding = false;
        await d.release();
        for (const id of ['one', 'two']) {
          // What the server refuses is put right by the person.
          for (const f of fields)
            if (m.mine.get(`${id} ${f}`) === 'bad' && (!f.includes('.') || d.shown(id).lines.some((l) => l.id === f.split('.')[0]))) {
              d.edit(id, op(f, '4'));
              m.mine.set(`${id} ${f}`, '4');
            }
          d.open(id);
          for (let i = 0; i < 6 && !(await d.saver.flush(id)); i++) answer(m, d, id, false);
          expect(d.held(id).save).toBe('clean');
          expect(d.shown(id)).toEqual(d.server.bills[id]);
        }
        expect([...m.mine]).toEqual([]);
      }),
      { numRuns: 300 },
    ));
});
