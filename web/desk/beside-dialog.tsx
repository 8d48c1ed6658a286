import { usePlace } from '../app/company';
import { useUpload } from '../arrivals/upload';
import { Dialog, DialogEnd } from '../ui/dialog';
import { Candidates } from './page-side';

/** Puts another document beside a bill: a file, or one of those that came. */
export function BesideDialog({ billId, close }: { billId: string; close(): void }) {
  const { company } = usePlace();
  const upload = useUpload(company.id);
  return (
    <Dialog title="A document beside the bill" close={close} wide>
      <p className="mb-3 quiet">
        The order, a delivery note: kept with the bill and read beside its page. Dropping files on the desk does the same.
      </p>
      <label className="btn btn-sm">
        Choose files …
        <input
          type="file"
          multiple
          data-first
          className="sr-only"
          onChange={(e) => {
            const files = [...(e.target.files ?? [])];
            if (!files.length) return;
            void upload(files, `/bills/${billId}/further-file`);
            close();
          }}
        />
      </label>
      <div className="max-h-[45vh] overflow-auto">
        <Candidates billId={billId} own={false} />
      </div>
      <DialogEnd close={close} />
    </Dialog>
  );
}
