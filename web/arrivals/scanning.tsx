import { Printer } from 'lucide-react';
import { useState } from 'react';
import { toast } from 'sonner';
import type { ScanSeparator } from '@ledgerline/contract';
import { sentenceOf } from '../app/api';
import { usePlace } from '../app/company';
import { arrivalsApi } from './api';
import { Dialog } from '../ui/dialog';

const choices: [ScanSeparator, string, string][] = [
  ['none', 'What the pages say', 'Page numbers, invoice numbers and suppliers tell where a document begins.'],
  ['blank', 'A blank page', 'Each blank page ends a document and is left out.'],
  ['sheet', 'A separator sheet', 'Each sheet with our code ends a document and is left out. Print as many as you need.'],
];

/** How one scan with several documents is parted. Holds for what is dropped in the scan folder from now on. */
export function ScanningDialog({ close }: { close(): void }) {
  const { company } = usePlace();
  const [chosen, choose] = useState<ScanSeparator>(company.scanSeparator);
  const [save, { isLoading }] = arrivalsApi.useSetScanningMutation();
  const done = async () => {
    try {
      await save({ company: company.id, separator: chosen }).unwrap();
      toast('Scans from now on are parted this way');
      close();
    } catch (e) {
      toast.error(sentenceOf(e));
    }
  };
  return (
    <Dialog title="Scan folder" close={close}>
      <form
        onSubmit={(e) => {
          e.preventDefault();
          void done();
        }}
      >
        <fieldset>
          <legend className="mb-2">What parts the documents in one scan?</legend>
          {choices.map(([value, label, help]) => (
            <label key={value} className="flex gap-3 py-1.5">
              <input
                type="radio"
                name="separator"
                className="radio radio-primary radio-sm mt-0.5"
                checked={chosen === value}
                onChange={() => choose(value)}
              />
              <span>
                <span className="font-medium">{label}</span>
                <span className="block text-[13px] quiet">{help}</span>
              </span>
            </label>
          ))}
        </fieldset>
        <div className="mt-4 flex items-center gap-2">
          <a className="btn btn-ghost btn-sm" href={`/api/companies/${company.id}/scanning/separator`} target="_blank" rel="noreferrer">
            <Printer size={14} aria-hidden />
            Print a separator sheet
          </a>
          <span className="ml-auto" />
          <button type="button" className="btn btn-sm" onClick={close}>
            Cancel
          </button>
          <button className="btn btn-primary btn-sm" disabled={isLoading}>
            Keep
          </button>
        </div>
      </form>
    </Dialog>
  );
}
