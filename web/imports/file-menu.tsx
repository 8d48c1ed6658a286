import { FileSpreadsheet } from 'lucide-react';
import { useNavigate } from 'react-router';
import type { ImportListName, SheetFormat } from '@ledgerline/contract';
import { usePlace } from '../app/company';
import { Menu, type MenuItem } from '../ui/menu';
import { importable } from './lists';
import { saveList } from './save';

/** A list to a file, as it is filtered, and rows from a file into it; so for another that has no place of its own (`beside`), too. */
export function FileMenu({
  list,
  q,
  dimension,
  beside,
}: {
  list: ImportListName;
  q?: string;
  dimension?: string;
  beside?: ImportListName;
}) {
  const { company, can } = usePlace();
  const navigate = useNavigate();
  if (!can('settings:see')) return null;
  const save = (format: SheetFormat) => () =>
    saveList(company.id, list, { format, ...(q ? { q } : {}), ...(dimension ? { dimension } : {}) });
  const besides = (one: ImportListName): MenuItem[] => {
    const called = importable[one].title.toLowerCase();
    return [
      { text: `Save ${called} as XLSX`, run: () => saveList(company.id, one, { format: 'xlsx' }) },
      { text: `Save ${called} as CSV`, run: () => saveList(company.id, one, { format: 'csv' }) },
      ...(can('settings:edit') ? [{ text: `Bring in ${called} from a file …`, run: () => void navigate(`/imports/${one}`) }] : []),
    ];
  };
  const items: MenuItem[] = [
    { text: q ? 'Save what is found as XLSX' : 'Save as XLSX', run: save('xlsx') },
    { text: q ? 'Save what is found as CSV' : 'Save as CSV', run: save('csv') },
    ...(can('settings:edit') ? [null, { text: 'Bring in from a file …', run: () => void navigate(`/imports/${list}`) }] : []),
    ...(beside ? [null, ...besides(beside)] : []),
  ];
  return (
    <Menu label="Files" items={items} className="btn btn-sm">
      <FileSpreadsheet size={14} aria-hidden />
      Files
    </Menu>
  );
}
