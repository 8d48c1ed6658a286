import { useRef, useState } from 'react';
import { toast } from 'sonner';
import type { BillNote } from '@ledgerline/contract';
import { sentenceOf } from '../app/api';
import { usePlace } from '../app/company';
import { billsApi } from '../bills/api';
import { showTime } from '../ui/format';
import { notesApi } from './api';
import { beingNamed, fitting, namedIn } from './named';

/** What people wrote to each other on a bill, and a line to write more: @ names somebody, Enter sends, Shift+Enter begins a new line. */
export function Notes({ billId, notes }: { billId: string; notes: readonly BillNote[] }) {
  const { company, me } = usePlace();
  const { data } = billsApi.useColleaguesQuery({ company: company.id });
  const [add, { isLoading }] = notesApi.useAddNoteMutation();
  const [text, setText] = useState('');
  const [cursor, setCursor] = useState(0);
  const [inHand, setInHand] = useState(0);
  const area = useRef<HTMLTextAreaElement>(null);
  const others = (data?.people ?? []).filter((p) => p.id !== me.id);
  const begun = beingNamed(text, cursor);
  const offered = begun ? fitting(others, begun.letters).slice(0, 6) : [];
  const chosen = Math.min(inHand, offered.length - 1);
  const put = (name: string) => {
    const next = `${text.slice(0, begun!.at)}@${name} ${text.slice(cursor)}`;
    const to = begun!.at + name.length + 2;
    setText(next);
    setCursor(to);
    setInHand(0);
    setTimeout(() => area.current?.setSelectionRange(to, to));
  };
  const send = async () => {
    if (!text.trim() || isLoading) return;
    try {
      await add({
        company: company.id,
        id: billId,
        body: { text: text.trim(), mentions: namedIn(text, others).map((p) => p.id) },
      }).unwrap();
      setText('');
    } catch (e) {
      toast.error(sentenceOf(e));
    }
  };
  return (
    <section aria-label="Notes" className="px-5 pt-4 text-[13px] max-md:px-4">
      <h2 className="mb-1 font-semibold">Notes</h2>
      <ul>
        {notes.map((n) => (
          <li key={n.id} className="py-1 leading-5 whitespace-pre-line">
            <b className="font-medium">{n.person}</b> <span className="quiet">{showTime(n.at)}</span>
            <br />
            {n.text}
          </li>
        ))}
      </ul>
      <div className="relative">
        <textarea
          ref={area}
          aria-label="Write a note"
          data-note
          placeholder="Write a note, @ names somebody"
          rows={text.split('\n').length}
          maxLength={2000}
          className="line-field w-full resize-none"
          value={text}
          onChange={(e) => {
            setText(e.target.value);
            setCursor(e.target.selectionStart);
            setInHand(0);
          }}
          onSelect={(e) => setCursor(e.currentTarget.selectionStart)}
          onKeyDown={(e) => {
            const offering = offered.length > 0;
            if (offering && (e.key === 'ArrowDown' || e.key === 'ArrowUp')) {
              e.preventDefault();
              setInHand((chosen + (e.key === 'ArrowDown' ? 1 : offered.length - 1)) % offered.length);
            } else if (offering && (e.key === 'Enter' || e.key === 'Tab')) {
              e.preventDefault();
              put(offered[chosen]!.name);
            } else if (e.key === 'Enter' && !e.shiftKey && !e.ctrlKey) {
              e.preventDefault();
              void send();
            }
          }}
        />
        {offered.length > 0 && (
          <ul
            role="listbox"
            aria-label="People"
            className="absolute bottom-full left-0 z-40 w-56 rounded-box border hair bg-base-100 py-1 shadow-lg"
          >
            {offered.map((p, i) => (
              <li
                key={p.id}
                role="option"
                aria-selected={i === chosen}
                className={`cursor-pointer px-3 py-1 ${i === chosen ? 'bg-primary text-primary-content' : ''}`}
                onMouseDown={(e) => {
                  e.preventDefault();
                  put(p.name);
                }}
              >
                {p.name}
              </li>
            ))}
          </ul>
        )}
      </div>
    </section>
  );
}
