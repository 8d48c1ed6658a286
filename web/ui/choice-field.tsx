import { useCombobox } from 'downshift';
import { createPortal } from 'react-dom';
import { useEffect, useRef, useState } from 'react';
import type { Choice, ChoiceKind } from '@ledgerline/contract';
import type { Coding } from '@ledgerline/core/bills';
import { billsApi } from '../bills/api';
import { useSettled } from './settled';

interface Props {
  company: string;
  of: ChoiceKind;
  label: string;
  value: string | null;
  /** The chosen one, as far as it is known. */
  chosen: Choice | null;
  onPick(choice: Choice | null): void;
  onNew?(typed: string): void;
  onFocus?(): void;
  className?: string;
  disabled?: boolean;
  /** code: the code alone; both: code and name; name: the name alone. */
  show?: 'code' | 'both' | 'name';
  /** What stands there while nothing is chosen. */
  fallback?: string | null;
  /** In a cell: arrows and Home are the grid's while nothing is looked for; F2 or a second click offers the list. */
  inGrid?: boolean;
  /** The bill's day, where what it may use depends on it. */
  day?: string | null;
  /** What else the row is coded with: only what goes together with it is offered. */
  beside?: Partial<Coding>;
  /** Offered before all others, each with why, as long as nothing is typed. */
  first?: readonly { choice: Choice; why: string }[];
}

const none: NonNullable<Props['first']> = [];
const textOf = (c: Choice, show: Props['show']) => (show === 'code' ? c.code : show === 'both' ? `${c.code} ${c.name}` : c.name);

/** A type-ahead field: what was typed is looked for on the server, by code or any part of the name; Enter or Tab takes the one in hand. */
export function ChoiceField({
  company,
  of,
  label,
  value,
  chosen,
  onPick,
  onNew,
  onFocus,
  className = 'line-field',
  disabled,
  show = 'name',
  fallback,
  inGrid,
  first = none,
  day,
  beside,
}: Props) {
  const wanted = { company, of, ...(day ? { day } : {}), ...(beside ? { beside } : {}) };
  const [typed, setTyped] = useState<string | null>(null);
  /** The list was asked for before anything was typed: leaving it then changes nothing. */
  const [offered, setOffered] = useState(false);
  const offer = () => {
    if (typed !== null || disabled) return;
    setOffered(true);
    setTyped('');
  };
  const asked = useSettled(typed ?? '');
  const { currentData, isFetching } = billsApi.useChoicesQuery({ ...wanted, q: asked }, { skip: typed === null });
  const [find] = billsApi.useLazyChoicesQuery();
  const offers = typed?.trim() === '' ? first : none;
  const found =
    typed === null
      ? []
      : [...offers.map((o) => o.choice), ...(currentData?.choices ?? []).filter((c) => !offers.some((o) => o.choice.id === c.id))];
  const input = useRef<HTMLInputElement>(null);
  // What stands there again after Esc is marked, as it was before: the next letter replaces it.
  useEffect(() => {
    if (typed === null && document.activeElement === input.current) input.current?.select();
  }, [typed]);
  const rest = chosen ? textOf(chosen, show) : (fallback ?? '');
  const take = (choice: Choice | null | undefined) => {
    setTyped(null);
    if (choice === undefined || (choice?.id ?? null) === value) return;
    onPick(choice);
  };
  /** The field is left: the one in hand is taken, or what the server finds for what is typed. */
  const leave = (inHand: Choice | undefined) => {
    if (typed === null) return;
    const q = typed.trim();
    if (q === '') return take(offered ? inHand : null);
    if (asked === typed && !isFetching) return take(inHand ?? found[0]);
    setTyped(null);
    void find({ ...wanted, q }, true)
      .unwrap()
      .then(
        ({ choices }) => take(choices[0]),
        () => undefined,
      );
  };
  const box = useCombobox<Choice>({
    items: found,
    itemToString: (c) => (c ? textOf(c, show) : ''),
    inputValue: typed ?? rest,
    isOpen: typed !== null,
    selectedItem: chosen,
    defaultHighlightedIndex: 0,
    // What happens on Enter, Esc and leaving is said below; typing and the arrows are downshift's.
    stateReducer: (state, { type, changes }) =>
      type === useCombobox.stateChangeTypes.InputBlur || type === useCombobox.stateChangeTypes.InputKeyDownEscape
        ? { ...state, highlightedIndex: changes.highlightedIndex ?? -1 }
        : changes,
    onSelectedItemChange: ({ selectedItem }) => take(selectedItem),
    onIsOpenChange: ({ isOpen, type }) => {
      if (isOpen && type === useCombobox.stateChangeTypes.InputKeyDownArrowDown) offer();
    },
  });
  const inHand = found[box.highlightedIndex];
  const open = typed !== null;
  const rect = open ? input.current?.getBoundingClientRect() : null;
  // A dialog moves what is fixed inside it: the list hangs on the dialog itself, which is as large as the window.
  const place = open ? input.current?.closest('dialog') : null;
  const menu = (
    <ul
      {...box.getMenuProps({ 'aria-label': label, tabIndex: -1 }, { suppressRefError: true })}
      hidden={!open || !rect}
      className="fixed z-50 max-h-72 overflow-auto rounded-box border hair bg-base-100 py-1 text-base-content shadow-lg"
      style={
        rect
          ? {
              left: Math.max(4, Math.min(rect.left, innerWidth - 340)),
              top: rect.bottom + 290 > innerHeight ? undefined : rect.bottom,
              bottom: rect.bottom + 290 > innerHeight ? innerHeight - rect.top : undefined,
              minWidth: Math.max(rect.width, 320),
            }
          : undefined
      }
    >
      {open &&
        found.map((c, index) => (
          <li
            key={c.id}
            {...box.getItemProps({ item: c, index, onMouseDown: (e) => e.preventDefault() })}
            className={`flex cursor-pointer gap-3 px-3 py-1 ${index === box.highlightedIndex ? 'bg-primary text-primary-content' : ''}`}
          >
            <span className="code w-14 shrink-0">{c.code}</span>
            <span className="min-w-0 grow">
              <span className="block truncate">{c.name}</span>
              {offers[index] && <span className="block text-[12px] opacity-80">{offers[index].why}</span>}
            </span>
            {c.detail && !offers[index] && <span className="text-[12px] opacity-80">{c.detail}</span>}
          </li>
        ))}
      {open && found.length >= 40 && (
        <li className="px-3 py-1 text-[13px] quiet" role="option" aria-selected="false">
          The first 40: type on for others.
        </li>
      )}
      {open && found.length === 0 && (
        <li className="px-3 py-1 quiet" role="option" aria-selected="false">
          {isFetching || asked !== typed ? 'Looking …' : `Nothing fits “${typed}”.`}
        </li>
      )}
      {open && onNew && typed.trim() && (
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
  );
  return (
    <>
      <input
        {...box.getInputProps({
          ref: input,
          disabled,
          'aria-label': label,
          onFocus: (e) => {
            e.target.select();
            onFocus?.();
          },
          // Taken at once: the next letter may come before downshift has told of this one.
          onChange: (e) => {
            setOffered(false);
            setTyped(e.currentTarget.value);
          },
          onBlur: () => (offered && typed === '' ? setTyped(null) : leave(inHand)),
          onMouseDown: () => {
            if (inGrid && document.activeElement === input.current) offer();
          },
          onKeyDown: (e) => {
            const own = e.nativeEvent as KeyboardEvent & { preventDownshiftDefault?: boolean };
            if (e.altKey || e.ctrlKey) own.preventDownshiftDefault = true;
            else if (inGrid && e.key === 'F2') {
              e.preventDefault();
              offer();
            } else if (inGrid && !open && /^(Arrow|Home|End|Page)/.test(e.key)) own.preventDownshiftDefault = true;
            else if (e.key === 'Escape') {
              // Closed, it is for whoever is around it: the cell, the dialog.
              own.preventDownshiftDefault = true;
              if (!open) return;
              e.preventDefault();
              e.stopPropagation();
              setTyped(null);
            } else if (e.key === 'Enter') {
              own.preventDownshiftDefault = true;
              if (open && found.length === 0 && asked === typed && !isFetching && onNew && typed.trim()) {
                e.preventDefault();
                e.stopPropagation();
                onNew(typed.trim());
                setTyped(null);
              } else leave(inHand);
            }
          },
        })}
        autoComplete="off"
        className={className}
        title={chosen ? `${chosen.code} ${chosen.name}` : undefined}
      />
      {place ? createPortal(menu, place) : menu}
    </>
  );
}
