import { useRef, useState, type ReactNode } from 'react';

/** What a menu offers; null parts what follows from what is before. */
export type MenuItem = { text: string; key?: string; run(): void; off?: boolean } | null;

/** A button with a list of things to do: arrows go through it, Esc leaves it. */
export function Menu({
  label,
  items,
  children,
  className,
  tabIndex,
  left,
}: {
  label: string;
  items: MenuItem[];
  children: ReactNode;
  className: string;
  tabIndex?: number;
  /** Where the cursor goes when it is left without a choice; else to the button. */ left?(): void;
}) {
  const button = useRef<HTMLButtonElement>(null);
  const [open, setOpen] = useState(false);
  const rect = open ? button.current?.getBoundingClientRect() : null;
  const high = items.length * 30 + 16;
  return (
    <>
      <button
        ref={button}
        type="button"
        tabIndex={tabIndex}
        className={className}
        aria-label={label}
        aria-haspopup="menu"
        aria-expanded={open}
        onClick={() => setOpen(!open)}
      >
        {children}
      </button>
      {rect && (
        <ul
          role="menu"
          aria-label={label}
          ref={(ul) => {
            if (ul && !ul.contains(document.activeElement)) ul.querySelector<HTMLElement>('button:not([disabled])')?.focus();
          }}
          className="fixed z-50 max-h-screen w-72 overflow-auto rounded-box border hair bg-base-100 py-1 text-left text-[14px] font-normal text-base-content shadow-lg"
          style={{
            right: Math.max(4, innerWidth - rect.right),
            // Where it fits neither below nor above, it stands beside its button.
            ...(rect.bottom + high <= innerHeight
              ? { top: rect.bottom }
              : rect.top >= high
                ? { bottom: innerHeight - rect.top }
                : { top: Math.max(4, innerHeight - high) }),
          }}
          onBlur={(e) => {
            if (!e.currentTarget.contains(e.relatedTarget)) setOpen(false);
          }}
          onKeyDown={(e) => {
            e.stopPropagation();
            e.nativeEvent.stopImmediatePropagation();
            const all = [...e.currentTarget.querySelectorAll<HTMLElement>('button:not([disabled])')];
            const at = all.indexOf(document.activeElement as HTMLElement);
            if (e.key === 'Escape') {
              setOpen(false);
              if (left) left();
              else button.current?.focus();
            } else if (e.key === 'ArrowDown' || e.key === 'ArrowUp') {
              e.preventDefault();
              all[(at + (e.key === 'ArrowDown' ? 1 : all.length - 1)) % all.length]?.focus();
            }
          }}
        >
          {items.map((item, i) =>
            item === null ? (
              <li key={i} role="separator" className="my-1 border-t hair" />
            ) : (
              <li key={item.text} role="none">
                <button
                  type="button"
                  role="menuitem"
                  disabled={item.off}
                  className="flex w-full justify-between gap-6 px-3 py-1 text-left hover:bg-primary/10 focus:bg-primary/10 disabled:opacity-40"
                  onClick={() => {
                    setOpen(false);
                    item.run();
                  }}
                >
                  {item.text}
                  {item.key && <kbd className="quiet text-[12px] whitespace-nowrap">{item.key}</kbd>}
                </button>
              </li>
            ),
          )}
        </ul>
      )}
    </>
  );
}
