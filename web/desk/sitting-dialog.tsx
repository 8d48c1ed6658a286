import { Dialog, DialogEnd } from '../ui/dialog';
import { showTime } from '../ui/format';
import { saidOf, type Sitting } from './sitting';

/** How this sitting went: each bill with its time and keys. */
export function SittingDialog({ sitting, close }: { sitting: Sitting; close(): void }) {
  return (
    <Dialog title="This sitting" close={close}>
      <p className="mb-2">
        Since {showTime(sitting.since)}: {saidOf(sitting) || 'no bill done yet'}.
      </p>
      <div className="max-h-[50vh] overflow-auto" tabIndex={0} data-first>
        <table className="w-full text-[13px]">
          <thead className="text-left">
            <tr className="quiet">
              <th className="font-medium">Bill</th>
              <th className="text-right font-medium">Seconds</th>
              <th className="text-right font-medium">Keys</th>
            </tr>
          </thead>
          <tbody className="tabular-nums">
            {[...sitting.done].reverse().map((d) => (
              <tr key={d.id} className="border-t hair">
                <td className="py-0.5">{d.number}</td>
                <td className="text-right">{d.seconds}</td>
                <td className="text-right">{d.keys}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <DialogEnd close={close} />
    </Dialog>
  );
}
