import { useId, useMemo, useRef, useState } from 'react';
import type { Choice } from '@ledgerline/contract';

interface Props {
  label: string;
  value: string | null;
  choices: Choice[];
  onPick(id: string | null): void;
  onNew?(typed: string): void;
  onFocus?(): void;
  className?: string;
  disabled?: boolean;
  compact?: boolean;
  /** Shows the code alone. */ codeOnly?: boolean;
  fallback?: string | null;
}

const fold = (text: string) => text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase();

/** Choices that fit what was typed: code first, then words in any part of the name. */
export function fitting(choices: Choice[], typed: string): Choice[] {
  const words = fold(typed).split(/\s+/).filter(Boolean);
  if (words.length === 0) return choices.slice(0, 40);
  const scored: { choice: Choice; score: number }[] = [];
  for (const choice of choices) {
    const code = fold(choice.code),
      name = fold(choice.name);
    if (!words.every((w) => code.startsWith(w) || name.includes(w))) continue;
    scored.push({ choice, score: code === words[0] ? 0 : code.startsWith(words[0]!) ? 1 : name.startsWith(words[0]!) ? 2 : 3 });
  }
  return scored
    .sort((a, b) => a.score - b.score)
    .slice(0, 40)
    .map((s) => s.choice);
}

/** A type-ahead field: by code or any part of the name; Enter or Tab takes the choice in hand. */
export function Pick({
  label,
  value,
  choices,
  onPick,
  onNew,
  onFocus,
  className = 'line-field',
  disabled,
  compact,
  codeOnly,
  fallback,
}: Props) {
  const list = useId();
  const [typed, setTyped] = useState<string | null>(null);
  const [at, setAt] = useState(0);
  const input = useRef<HTMLInputElement>(null);
  const chosen = useMemo(() => choices.find((c) => c.id === value) ?? null, [choices, value]);
  const shown = chosen ? (codeOnly ? chosen.code : compact ? `${chosen.code} ${chosen.name}` : chosen.name) : (fallback ?? '');
  const open = typed !== null;
  const found = useMemo(() => (open ? fitting(choices, typed) : []), [open, typed, choices]);
  const take = (choice: Choice | undefined) => {
    if (choice && choice.id !== value) onPick(choice.id);
    setTyped(null);
    setAt(0);
  };
  const leave = () => {
    if (typed === '') onPick(null);
    else if (typed && found[at]) take(found[at]);
    setTyped(null);
  };
  const rect = open ? input.current?.getBoundingClientRect() : null;
  return (
    <>
      <input
        ref={input}
        role="combobox"
        aria-label={label}
        aria-expanded={open}
        aria-controls={list}
        aria-autocomplete="list"
        aria-activedescendant={open && found[at] ? `${list}-${at}` : undefined}
        autoComplete="off"
        disabled={disabled}
        className={className}
        title={chosen ? `${chosen.code} ${chosen.name}` : undefined}
        value={typed ?? shown}
        onFocus={(e) => {
          e.target.select();
          onFocus?.();
        }}
        onChange={(e) => {
          setTyped(e.target.value);
          setAt(0);
        }}
        onBlur={leave}
        onKeyDown={(e) => {
          if (e.key === 'ArrowDown' && !e.altKey) {
            e.preventDefault();
            if (open) setAt(Math.min(at + 1, found.length - 1));
            else setTyped('');
          } else if (e.key === 'ArrowUp' && open) {
            e.preventDefault();
            setAt(Math.max(0, at - 1));
          } else if (e.key === 'Escape' && open) {
            e.stopPropagation();
            setTyped(null);
          } else if (e.key === 'Enter' && open && !e.ctrlKey) {
            if (found[at]) {
              if (typed !== '') take(found[at]);
              else take(found[at]);
            } else if (onNew && typed.trim()) {
              onNew(typed.trim());
              setTyped(null);
            }
          }
        }}
      />
      {open && rect && (
        <ul
          id={list}
          role="listbox"
          aria-label={label}
          className="fixed z-50 max-h-72 overflow-auto rounded-box border hair bg-base-100 py-1 shadow-lg"
          style={{
            left: Math.min(rect.left, innerWidth - 330),
            top: rect.bottom + 290 > innerHeight ? undefined : rect.bottom,
            bottom: rect.bottom + 290 > innerHeight ? innerHeight - rect.top : undefined,
            minWidth: Math.max(rect.width, 310),
          }}
        >
          {found.map((c, i) => (
            <li
              key={c.id}
              id={`${list}-${i}`}
              role="option"
              aria-selected={i === at}
              className={`flex cursor-pointer gap-3 px-3 py-1 ${i === at ? 'bg-primary text-primary-content' : 'hover:bg-base-200'}`}
              onMouseDown={(e) => {
                e.preventDefault();
                take(c);
              }}
            >
              <span className="code w-14 shrink-0">{c.code}</span>
              <span className="grow truncate">{c.name}</span>
              {c.detail && <span className="text-[12px] opacity-80">{c.detail}</span>}
            </li>
          ))}
          {found.length === 0 && (
            <li className="px-3 py-1 quiet" role="option" aria-selected="false">
              Nothing fits “{typed}”.
            </li>
          )}
          {onNew && typed?.trim() && (
            <li
              role="option"
              aria-selected="false"
              className="cursor-pointer border-t hair px-3 py-1 text-accent"
              onMouseDown={(e) => {
                e.preventDefault();
                onNew(typed.trim());
                setTyped(null);
              }}
            >
              Make “{typed.trim()}” a new supplier
            </li>
          )}
        </ul>
      )}
    </>
  );
}
