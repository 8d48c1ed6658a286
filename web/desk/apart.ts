import { useEffect, useRef, useState } from 'react';
import type { Mark } from '@ledgerline/contract';
import type { ShownMark } from './sheet';

/** What stands on the desk, as the page's own window needs it. */
export interface OnDesk {
  company: string;
  documentId: string | null;
  title: string;
  marks: ShownMark[];
  active: string | null;
}
/** What the two windows tell each other. Both are of the same person in the same browser: nobody else hears it. */
type Told =
  | { kind: 'desk'; on: OnDesk | null }
  | { kind: 'page begins' }
  | { kind: 'page is here' }
  | { kind: 'page is gone' }
  | { kind: 'mark'; path: string }
  | { kind: 'word'; text: string; mark: Mark }
  | { kind: 'box'; mark: Mark };
/** What can be done with the page, in either window. */
export interface OnPage {
  mark(path: string): void;
  word(text: string, mark: Mark): void;
  box(mark: Mark): void;
}

const channelOf = (personId: string) => new BroadcastChannel(`ledgerline page ${personId}`);

/** The desk's end: tells the page's window what stands here, and hears what is clicked there. Gives whether there is such a window. */
export function useApart(personId: string, on: OnDesk | null, heard: OnPage): boolean {
  const [here, setHere] = useState(false);
  const channel = useRef<BroadcastChannel | null>(null);
  const now = useRef({ on, heard });
  now.current = { on, heard };
  useEffect(() => {
    const own = channelOf(personId);
    channel.current = own;
    const tell = (told: Told) => own.postMessage(told);
    own.onmessage = ({ data }: MessageEvent<Told>) => {
      if (data.kind === 'page is here') setHere(true);
      else if (data.kind === 'page begins') {
        setHere(true);
        tell({ kind: 'desk', on: now.current.on });
      } else if (data.kind === 'page is gone') setHere(false);
      else if (data.kind === 'mark') now.current.heard.mark(data.path);
      else if (data.kind === 'word') now.current.heard.word(data.text, data.mark);
      else if (data.kind === 'box') now.current.heard.box(data.mark);
    };
    // Who has a page's window open already answers.
    tell({ kind: 'desk', on: now.current.on });
    return () => {
      tell({ kind: 'desk', on: null });
      own.close();
      channel.current = null;
    };
  }, [personId]);
  useEffect(() => channel.current?.postMessage({ kind: 'desk', on } satisfies Told), [on]);
  return here;
}

/** The page's end: what stands on the desk, and ways to tell the desk what is clicked here. */
export function useDeskAfar(personId: string): OnPage & { on: OnDesk | null } {
  const [on, setOn] = useState<OnDesk | null>(null);
  const channel = useRef<BroadcastChannel | null>(null);
  useEffect(() => {
    const own = channelOf(personId);
    channel.current = own;
    own.onmessage = ({ data }: MessageEvent<Told>) => {
      if (data.kind !== 'desk') return;
      setOn(data.on);
      if (data.on) own.postMessage({ kind: 'page is here' } satisfies Told);
    };
    const gone = () => own.postMessage({ kind: 'page is gone' } satisfies Told);
    addEventListener('pagehide', gone);
    own.postMessage({ kind: 'page begins' } satisfies Told);
    return () => {
      removeEventListener('pagehide', gone);
      gone();
      own.close();
      channel.current = null;
    };
  }, [personId]);
  const tell = (told: Told) => channel.current?.postMessage(told);
  return {
    on,
    mark: (path) => tell({ kind: 'mark', path }),
    word: (text, mark) => tell({ kind: 'word', text, mark }),
    box: (mark) => tell({ kind: 'box', mark }),
  };
}
