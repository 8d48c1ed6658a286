import { Download } from 'lucide-react';
import type { ReactNode } from 'react';
import { useDropzone } from 'react-dropzone';
import { useNavigate } from 'react-router';
import { useBillAtDesk } from '../app/at-desk';
import { usePlace } from '../app/company';
import { billsApi } from '../bills/api';
import { useUpload } from './upload';

/** The bill at the desk, where somebody works on it: what is dropped is for it. */
function useBillInHand(): { id: string; without: boolean } | null {
  const { company, can } = usePlace();
  const id = useBillAtDesk();
  const { currentData } = billsApi.useBillQuery({ company: company.id, id: id ?? '' }, { skip: !id });
  return id && currentData && can('bills:edit') ? { id, without: currentData.documentId === null } : null;
}

/** Files dropped anywhere become arrivals; at the desk, the bill's document, or documents beside it. */
export function DropAnywhere({ children }: { children: ReactNode }) {
  const { company, can } = usePlace();
  const upload = useUpload(company.id);
  const navigate = useNavigate();
  const bill = useBillInHand();
  const { getRootProps, isDragActive } = useDropzone({
    noClick: true,
    noKeyboard: true,
    disabled: !can('arrivals:add'),
    onDrop: (files) => {
      if (files.length && bill) {
        const [first, ...rest] = files;
        void upload([first!], `/bills/${bill.id}/${bill.without ? 'own' : 'further'}-file`);
        if (rest.length) void upload(rest, `/bills/${bill.id}/further-file`);
      } else if (files.length) {
        void navigate('/arrivals');
        void upload(files);
      }
    },
  });
  return (
    <div {...getRootProps({ className: 'relative h-full', tabIndex: -1 })}>
      {children}
      {isDragActive && (
        <div className="absolute inset-2 z-50 grid place-items-center rounded-box border-2 border-dashed border-primary bg-base-100/90 text-xl text-primary">
          <span className="flex gap-3">
            <Download />
            {!bill
              ? `Drop to add to ${company.name}`
              : bill.without
                ? 'Drop to give this bill its document'
                : 'Drop to keep beside this bill'}
          </span>
        </div>
      )}
    </div>
  );
}
