import { Download } from 'lucide-react';
import type { ReactNode } from 'react';
import { useDropzone } from 'react-dropzone';
import { useNavigate } from 'react-router';
import { usePlace } from '../app/company';
import { useUpload } from './upload';

/** Files dropped anywhere become arrivals. */
export function DropAnywhere({ children }: { children: ReactNode }) {
  const { company, can } = usePlace();
  const upload = useUpload(company.id);
  const navigate = useNavigate();
  const { getRootProps, isDragActive } = useDropzone({
    noClick: true,
    noKeyboard: true,
    disabled: !can('arrivals:add'),
    onDrop: (files) => {
      if (files.length) {
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
            Drop to add to {company.name}
          </span>
        </div>
      )}
    </div>
  );
}
