import { useDispatch } from 'react-redux';
import { toast } from 'sonner';
import { api } from '../app/api';

/** Sends files with their progress; one after another, so that one bad file keeps back none of the rest. */
export function useUpload(company: string): (files: File[]) => Promise<void> {
  const dispatch = useDispatch();
  return async (files) => {
    const id = toast.loading(`Adding ${files.length === 1 ? files[0]!.name : `${files.length} files`} …`);
    let done = 0;
    const failed: string[] = [];
    for (const file of files) {
      await new Promise<void>((next) => {
        const form = new FormData();
        form.append('file', file);
        const request = new XMLHttpRequest();
        request.open('POST', `/api/companies/${company}/arrivals`);
        request.upload.onprogress = (e) => toast.loading(`${file.name}: ${Math.round((100 * e.loaded) / e.total)} % · ${done + 1} of ${files.length}`, { id });
        request.onload = () => {
          if (request.status >= 400) failed.push(`${file.name}: ${(JSON.parse(request.responseText || '{}') as { title?: string }).title ?? 'could not be added'}`);
          next();
        };
        request.onerror = () => { failed.push(`${file.name}: the connection broke off`); next(); };
        request.send(form);
      });
      done++;
      dispatch(api.util.invalidateTags(['arrivals']));
    }
    if (failed.length) toast.error(failed.join(' · '), { id, duration: 12_000 });
    else toast.success(`${files.length === 1 ? files[0]!.name : `${files.length} files`} added`, { id });
  };
}
