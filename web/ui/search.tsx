import { Search } from 'lucide-react';
import { useEffect, useState } from 'react';

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
  useEffect(() => setTyped(value), [value]);
  useEffect(() => {
    const timer = setTimeout(() => {
      if (typed !== value) change(typed);
    }, 250);
    return () => clearTimeout(timer);
  }, [typed, value, change]);
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
        onChange={(e) => setTyped(e.target.value)}
        onKeyDown={(e) => {
          if (e.key === 'Enter' || e.key === 'ArrowDown' || e.key === 'Escape') {
            e.preventDefault();
            e.currentTarget.blur();
          }
        }}
      />
    </label>
  );
}
