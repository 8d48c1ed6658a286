import type { SheetFormat } from '@ledgerline/contract';
import { FileSpreadsheet } from 'lucide-react';
import { usePlace } from '../app/company';
import { Menu } from '../ui/menu';
import { saveFile } from './save';

/** What is found, to a file. `what`: "what is found". */
export function SaveMenu({ path, asked, what }: { path: string; asked: Record<string, string | undefined>; what: string }) {
  const { company } = usePlace();
  const save = (format: SheetFormat) => () => saveFile(company.id, path, { ...asked, format });
  return (
    <Menu
      label="Files"
      className="btn btn-sm"
      items={[
        { text: `Save ${what} as XLSX`, run: save('xlsx') },
        { text: `Save ${what} as CSV`, run: save('csv') },
      ]}
    >
      <FileSpreadsheet size={14} aria-hidden />
      Files
    </Menu>
  );
}
