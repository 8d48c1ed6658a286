import { useCallback, useEffect, useRef, useState } from 'react';
import type { Bill, BillHeader, BillLine, SaveBill } from '@ledgerline/contract';
import { api, sentenceOf } from '../app/api';
import { typedOver } from './marks';

export type SaveState = { word: string; bad: boolean };
export type HeaderChange = Partial<BillHeader>;

/**
 * The bill as it is being worked on. Changes show at once and are saved by themselves shortly after; a change that somebody else made
 * meanwhile is never overwritten: the desk says so and loads the bill again.
 */
export function useDraft(company: string, loaded: Bill | undefined) {
  const [draft, setDraft] = useState<Bill | null>(null);
  const [state, setState] = useState<SaveState>({ word: '', bad: false });
  const [save] = api.useSaveBillMutation();
  const pending = useRef<{ header: HeaderChange; lines: boolean }>({ header: {}, lines: false });
  const latest = useRef<Bill | null>(null);
  const running = useRef<Promise<boolean> | null>(null);
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  const dirty = () => pending.current.lines || Object.keys(pending.current.header).length > 0;

  useEffect(() => {
    if (!loaded) return;
    const other = latest.current?.id !== loaded.id;
    if (!other && (dirty() || running.current || loaded.rowVersion <= (latest.current?.rowVersion ?? 0))) return;
    if (other) {
      pending.current = { header: {}, lines: false };
      setState({ word: '', bad: false });
    }
    latest.current = loaded;
    setDraft(loaded);
  }, [loaded]);

  /** Saves what is not saved yet; gives the bill as it now stands on the server, or null where that failed. */
  const flush = useCallback(async (): Promise<Bill | null> => {
    clearTimeout(timer.current);
    if (running.current) await running.current;
    const now = latest.current;
    if (!now || !dirty()) return now;
    const { header, lines } = pending.current;
    pending.current = { header: {}, lines: false };
    const body: SaveBill = {
      rowVersion: now.rowVersion,
      ...(Object.keys(header).length ? { header } : {}),
      ...(lines ? { lines: now.lines } : {}),
    };
    setState({ word: 'Saving …', bad: false });
    running.current = save({ company, id: now.id, body })
      .unwrap()
      .then(
        (saved) => {
          // What was typed while saving stays on top of what came back.
          const merged = { ...saved, ...pending.current.header, lines: pending.current.lines ? latest.current!.lines : saved.lines };
          latest.current = merged;
          setDraft(merged);
          setState({ word: 'Saved', bad: false });
          return true;
        },
        (error: { status?: unknown }) => {
          if (error.status === 'FETCH_ERROR') {
            pending.current = { header: { ...header, ...pending.current.header }, lines: lines || pending.current.lines };
            timer.current = setTimeout(() => void flush(), 3000);
          }
          setState({ word: sentenceOf(error), bad: true });
          return false;
        },
      );
    const ok = await running.current;
    running.current = null;
    return ok ? latest.current : null;
  }, [company, save]);

  const touch = (next: Bill) => {
    latest.current = next;
    setDraft(next);
    clearTimeout(timer.current);
    timer.current = setTimeout(() => void flush(), 700);
  };
  const setHeader = (change: HeaderChange) => {
    if (!latest.current) return;
    const typed = typedOver(latest.current, change);
    const settled = latest.current.unsure.filter((path) => !(path in change));
    const whole = settled.length < latest.current.unsure.length ? { ...typed, unsure: settled } : typed;
    pending.current.header = { ...pending.current.header, ...whole };
    touch({ ...latest.current, ...whole });
  };
  const setLines = (change: (lines: BillLine[]) => BillLine[], settles?: string) => {
    if (!latest.current) return;
    pending.current.lines = true;
    const unsure = settles ? latest.current.unsure.filter((path) => path !== settles && path !== 'lines') : latest.current.unsure;
    if (unsure.length < latest.current.unsure.length) pending.current.header = { ...pending.current.header, unsure };
    touch({ ...latest.current, unsure, lines: change(latest.current.lines) });
  };
  return { draft, state, setHeader, setLines, flush };
}
