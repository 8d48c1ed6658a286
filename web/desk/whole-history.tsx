import type { Bill } from '@ledgerline/contract';
import { Dialog, DialogEnd } from '../ui/dialog';
import { showTime } from '../ui/format';
import { pathName } from './marks';
import type { Desk } from './use-desk';

/** What a logged value reads as: codes and names for ids, as far as they are known. */
const shown = (desk: Desk, value: string | null): string => {
  if (value === null || value === '') return '–';
  const choice = desk.choiceOf(value);
  return choice ? `${choice.code} ${choice.name}` : value;
};

/** Everything that happened to a bill, as it happened: who, what, before and after. */
export function WholeHistory({ desk, close }: { desk: Desk; close(): void }) {
  const bill: Bill = desk.bill;
  return (
    <Dialog title="Whole history" close={close} wide>
      <div className="max-h-[60vh] overflow-auto" tabIndex={0} data-first>
        <table className="w-full text-[13px]">
          <thead className="sticky top-0 bg-base-100 text-left">
            <tr>
              {['When', 'Who', 'What', 'Before', 'After'].map((head) => (
                <th key={head} className="py-1 pr-3 font-medium quiet">
                  {head}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {bill.events.flatMap((e) => {
              const changes = e.changes.filter((c) => !c.field.endsWith('.position') && c.field !== 'stage');
              const rows = changes.length > 0 ? changes : [null];
              return rows.map((c, i) => (
                <tr key={`${e.id} ${c?.field ?? ''}`} className={`align-top ${i === 0 ? 'border-t hair' : ''}`}>
                  <td className="py-0.5 pr-3 whitespace-nowrap quiet">{i === 0 ? showTime(e.at) : ''}</td>
                  <td className="py-0.5 pr-3 whitespace-nowrap">{i === 0 ? (e.person ?? 'Ledgerline') : ''}</td>
                  <td className="py-0.5 pr-3">
                    {i === 0 && (
                      <>
                        {e.verb}
                        {e.note && <span className="quiet"> “{e.note}”</span>}
                        {c && ' '}
                      </>
                    )}
                    {c && <span className="quiet">{fieldName(bill, c.field)}</span>}
                  </td>
                  <td className="max-w-44 py-0.5 pr-3 break-words whitespace-pre-line">{c ? shown(desk, c.before) : ''}</td>
                  <td className="max-w-44 py-0.5 break-words whitespace-pre-line">{c ? shown(desk, c.after) : ''}</td>
                </tr>
              ));
            })}
          </tbody>
        </table>
      </div>
      <DialogEnd close={close} />
    </Dialog>
  );
}

const plain: Record<string, string> = { hands: 'In the hands of', until: 'Until', to: 'To' };
const fieldName = (bill: Bill, field: string): string => plain[field] ?? pathName(bill, field);
