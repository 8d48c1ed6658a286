import { useEffect, useRef, useState } from 'react';
import { usePlace } from '../app/company';
import { noteDone, sittingOf, type Sitting } from './sitting';

/** How this sitting goes, and how to note that the bill in hand is done. Time and keys count while the bill is before this person. */
export function useSitting(id: string): { sitting: Sitting; note(number: string): void } {
  const { me } = usePlace();
  const [sitting, set] = useState<Sitting>(() => sittingOf(sessionStorage, me.id, new Date()));
  const since = useRef({ at: performance.now(), keys: 0 });
  useEffect(() => {
    since.current = { at: performance.now(), keys: 0 };
    const count = (e: KeyboardEvent) => {
      if (!['Control', 'Alt', 'Shift', 'Meta'].includes(e.key)) since.current.keys++;
    };
    addEventListener('keydown', count, true);
    return () => removeEventListener('keydown', count, true);
  }, [id]);
  return {
    sitting,
    note(number) {
      const seconds = Math.round((performance.now() - since.current.at) / 1000);
      set(noteDone(sessionStorage, me.id, { id, number, seconds, keys: since.current.keys }, new Date()));
    },
  };
}
