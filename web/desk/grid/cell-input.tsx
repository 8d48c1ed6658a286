import { useEffect, useImperativeHandle, useLayoutEffect, useRef, useState, type RefObject } from 'react';
import { toast } from 'sonner';
import { dateOrder, money, todayIso } from '../../ui/format';
import { textOf, type Column } from './columns';
import { valueFrom } from './values';
import type { Editor } from './use-grid';
import type { BillLine } from '@ledgerline/contract';

interface Props {
  line: BillLine;
  column: Column;
  currency: string;
  label: string;
  readOnly: boolean;
  className: string;
  editor: RefObject<Editor | null>;
  onSave(value: string | null): void;
}

/**
 * The field of the cell in hand. All of it is marked, so that typing replaces it; F2 or a second click puts the cursor into it. Alt+Enter
 * makes a new line where words may have several.
 */
export function CellInput({ line, column, currency, label, readOnly, className, editor, onSave }: Props) {
  const value = line[column.id];
  const shown =
    column.content === 'words'
      ? (value ?? '')
      : column.content === 'money'
        ? money(value, currency).replace('−', '-')
        : textOf(line, column, currency, () => null);
  const [typed, setTyped] = useState<string | null>(null);
  const [inside, setInside] = useState(false);
  const input = useRef<HTMLInputElement & HTMLTextAreaElement>(null);
  const text = typed ?? shown;
  const rest = () => {
    setTyped(null);
    setInside(false);
  };
  const commit = (): boolean => {
    if (typed === null || typed === shown) {
      rest();
      return true;
    }
    const read = valueFrom(typed, column, currency, todayIso(), dateOrder());
    if ('wrong' in read) {
      toast.error(`${label}: ${read.wrong}.`);
      return false;
    }
    rest();
    if (read.value !== value) onSave(read.value);
    return true;
  };
  useImperativeHandle(editor, () => ({
    typing: () => (inside ? 'edit' : typed !== null && typed !== shown ? 'replace' : 'no'),
    begin() {
      if (readOnly) return;
      setInside(true);
      input.current?.focus();
      input.current?.setSelectionRange(text.length, text.length);
    },
    commit,
    cancel() {
      rest();
      setTimeout(() => input.current?.select());
    },
    focus() {
      input.current?.focus();
      input.current?.select();
    },
  }));
  useEffect(() => {
    input.current?.focus({ preventScroll: true });
    input.current?.select();
  }, []);
  const common = {
    ref: input,
    'aria-label': label,
    'data-typing': inside || (typed !== null && typed !== shown),
    readOnly,
    autoComplete: 'off',
    spellCheck: false,
    value: text,
    onChange: (e: React.ChangeEvent<HTMLInputElement | HTMLTextAreaElement>) => setTyped(e.target.value),
    onBlur: () => {
      if (!commit()) rest();
    },
    onMouseDown: () => {
      if (document.activeElement === input.current && !readOnly) setInside(true);
    },
  };
  // As tall as its lines while they are worked on.
  useLayoutEffect(() => {
    const area = input.current;
    if (column.content !== 'words' || !area) return;
    area.style.height = '31px';
    if (common['data-typing']) area.style.height = `${Math.min(140, Math.max(31, area.scrollHeight))}px`;
  }, [text, common['data-typing'], column.content]); // eslint-disable-line react-hooks/exhaustive-deps -- by what stands in it
  return column.content === 'words' ? (
    <textarea
      {...common}
      rows={1}
      wrap={common['data-typing'] ? 'soft' : 'off'}
      className={`${className} absolute inset-x-0 top-0 z-10 resize-none overflow-hidden py-[5px] leading-[21px]`}
    />
  ) : (
    <input {...common} className={`${className} ${column.num ? 'text-right' : ''}`} />
  );
}
