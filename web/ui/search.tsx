import { Search } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { afterPause } from './pause';

/** The search field of a list: what is typed counts once typing pauses. Enter and ↓ go to the list. */
export function SearchField({
  label,
  placeholder,
  value,
  change,
  wide,
}: {
  label: string;
  placeholder: string;
  value: string;
  change(value: string): void;
  wide?: boolean;
}) {
  const [typed, setTyped] = useState(value);
  const latest = useRef(change);
  useEffect(() => void (latest.current = change), [change]);
  const [pause] = useState(() => {
    const { pathname } = window.location;
    // Who has opened a row meanwhile is not pulled back to the list.
    return afterPause((text) => window.location.pathname === pathname && latest.current(text), 250);
  });
  // An answer to what was typed before must not take away what is typed now.
  useEffect(() => void (pause.pending() || setTyped(value)), [value, pause]);
  useEffect(() => pause.drop, [pause]);
  return (
    <label
      className={`flex items-center gap-2 border-b-2 border-base-300 focus-within:border-primary ${wide ? 'w-[420px]' : 'w-72'} max-md:w-40`}
    >
      <Search size={15} aria-hidden />
      <input
        type="search"
        aria-label={label}
        placeholder={placeholder}
        className="h-9 min-w-0 grow bg-transparent outline-none"
        value={typed}
        onChange={(e) => {
          setTyped(e.target.value);
          pause.typed(e.target.value);
        }}
        onKeyDown={(e) => {
          if (e.key === 'Enter' || e.key === 'ArrowDown' || e.key === 'Escape') {
            e.preventDefault();
            pause.now();
            e.currentTarget.blur();
          }
        }}
      />
    </label>
  );
}
