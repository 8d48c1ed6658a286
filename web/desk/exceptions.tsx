import { CircleAlert, CircleHelp } from 'lucide-react';
import { lazy, Suspense, useState } from 'react';
import { Link } from 'react-router';
import { toast } from 'sonner';
import { partTax, type Operation } from '@ledgerline/core/bills';
import type { Exception, SettleException } from '@ledgerline/contract';
import { sentenceOf } from '../app/api';
import { usePlace } from '../app/company';
import { flushBill, store } from '../app/store';
import { billsApi } from '../bills/api';
import { AskNote } from '../ui/dialog';
import { FillAll } from './fill-all';
import { focusField } from './focus';
import { TwinDialog } from './twin-dialog';
import { saidOf } from './said';
import { opened } from './state';
import type { Desk } from './use-desk';
import { VerifyDialog } from './verify-dialog';

const HabitChart = lazy(async () => ({ default: (await import('./habit-chart')).HabitChart }));

/** So many sentences stand above a bill; the rest behind a count. */
const most = 3;

/** What is to be settled, in sentences with what settles each. */
export function Exceptions({ desk, newSupplier }: { desk: Desk; newSupplier: (() => void) | null }) {
  const { company, can } = usePlace();
  const [settle] = billsApi.useSettleExceptionMutation();
  const [overruling, overrule] = useState<Exception | null>(null);
  const [verifying, verify] = useState<Exception | null>(null);
  const { bill, locked } = desk;
  const inHand = ['read', 'returned'].includes(bill.stage);
  const [twin, look] = useState<string | null>(null);
  const said = saidOf(bill);
  const [whole, showWhole] = useState(false);
  const shown = whole ? said : said.slice(0, most);
  const more = said.length - shown.length;
  const done = async (e: Exception, how: Pick<SettleException, 'how' | 'take' | 'reason'>) => {
    if (!(await flushBill(bill.id))) return void toast.error('What you typed is not saved yet.');
    const rowVersion = store.getState().desk.held[bill.id]!.base.rowVersion;
    const body = { rowVersion, code: e.code, path: e.path, key: e.key, ...how };
    settle({ company: company.id, id: bill.id, body })
      .unwrap()
      .then(
        (next) => store.dispatch(opened({ bill: next })),
        (error) => toast.error(sentenceOf(error)),
      );
  };
  if (said.length === 0) return null;
  const small = 'btn btn-xs btn-outline';
  const actions = (e: Exception) => (
    <>
      {!locked &&
        e.choices.map((c) => (
          <button key={c.take} className={small} onClick={() => void done(e, { how: 'choose', take: c.take })}>
            {c.label}
          </button>
        ))}
      {!locked &&
        e.changes.map((r) => (
          <button
            key={r.label}
            className={small}
            title={r.kind === 'operations' ? 'Ctrl+Z takes it back' : 'Rows are parted and coded so; Ctrl+Z takes it back'}
            onClick={() =>
              desk.edit(
                ...(r.kind === 'operations' ? (r.operations as Operation[]) : partTax(bill.lines, r, bill.currency, crypto.randomUUID())),
              )
            }
          >
            {r.label}
          </button>
        ))}
      {!locked && e.settledBy.includes('confirm') && e.choices.length === 0 && (
        <button className={small} onClick={() => void done(e, { how: 'confirm' })}>
          It is right
        </button>
      )}
      {inHand && e.settledBy.includes('overrule') && (
        <button className={small} onClick={() => overrule(e)}>
          Overrule
        </button>
      )}
      {e.settledBy.includes('verify') && (
        <button className={small} title="Payment is held until a second person has asked the supplier" onClick={() => verify(e)}>
          Verify
        </button>
      )}
      {e.other && (
        <button className={small} onClick={() => look(e.other)}>
          Beside that bill
        </button>
      )}
      {newSupplier && e.code === 'supplier-missing' && (
        <button className={small} title="Alt+M" onClick={newSupplier}>
          {bill.supplierName ? 'Make this supplier' : 'New supplier'}
        </button>
      )}
      {e.code === 'bank-differs' && bill.supplierId && can('suppliers:edit') && (
        <Link className={small} to={`/suppliers/${bill.supplierId}?iban=${bill.supplierIban ?? ''}`}>
          Bank details
        </Link>
      )}
    </>
  );
  return (
    <>
      <ul aria-label="Exceptions" className="border-b hair bg-warning/10 px-5 py-1.5 text-[14px]">
        {shown.map((one) => (
          <li key={one.key} className="flex min-h-7 items-center gap-2 py-0.5">
            {one.severity === 'stops' ? (
              <CircleAlert size={14} className="shrink-0 text-error" aria-label="Stops the bill" />
            ) : (
              <CircleHelp size={14} className="shrink-0 text-accent" aria-label="Asks" />
            )}
            <button className="text-left hover:underline" onClick={() => focusField(one.path)}>
              {one.sentence}
            </button>
            {one.all[0]!.earlier.length > 0 && bill.gross && (
              <Suspense>
                <HabitChart earlier={one.all[0]!.earlier} now={bill.gross} currency={bill.currency} />
              </Suspense>
            )}
            <span className="ml-auto flex shrink-0 items-center gap-1">
              {!locked && one.fill && <FillAll desk={desk} {...one.fill} />}
              {actions(one.all[0]!)}
            </span>
          </li>
        ))}
        {(more > 0 || whole) && said.length > most && (
          <li>
            <button className="ml-[22px] text-[13px] text-accent hover:underline" aria-expanded={whole} onClick={() => showWhole(!whole)}>
              {whole ? 'Show less' : `${more} more`}
            </button>
          </li>
        )}
      </ul>
      {twin && <TwinDialog desk={desk} other={twin} close={() => look(null)} />}
      {verifying && <VerifyDialog bill={bill} of={verifying} close={() => verify(null)} />}
      {overruling && (
        <AskNote
          title="Overrule this"
          action="Overrule"
          label="Reason"
          close={() => overrule(null)}
          done={(reason) => {
            overrule(null);
            void done(overruling, { how: 'overrule', reason });
          }}
        />
      )}
    </>
  );
}
