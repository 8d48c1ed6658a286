import { useDispatch } from 'react-redux';
import { toast } from 'sonner';
import { api, list } from '../app/api';

/** Files that belong together by their name, such as an e-invoice and its page ("a.xml", "a.pdf"): they arrive as one. */
export function together(files: File[]): File[][] {
  const groups = new Map<string, File[]>();
  for (const file of files) {
    const stem = file.name.replace(/\.[^.]+$/, '').toLowerCase();
    groups.set(stem, [...(groups.get(stem) ?? []), file]);
  }
  return [...groups.values()].flatMap((group) => (group.some((f) => /\.xml$/i.test(f.name)) ? [group] : group.map((file) => [file])));
}

/** Why a file was refused, in the server's words; what stands between may answer with something else than them. */
export function refusal(answer: string): string {
  try {
    return (JSON.parse(answer) as { title?: string }).title ?? 'could not be added';
  } catch {
    return 'could not be added';
  }
}

/** Has the browser ask before the page is left, until what it answers with is called. */
function askBeforeLeaving(): () => void {
  const ask = (e: BeforeUnloadEvent) => e.preventDefault();
  addEventListener('beforeunload', ask);
  return () => removeEventListener('beforeunload', ask);
}

/** Sends files with their progress, to Arrivals or to a bill; one after another, so that one bad file keeps back none of the rest. Leaving the page asks first meanwhile. */
export function useUpload(company: string): (files: File[], to?: string) => Promise<void> {
  const dispatch = useDispatch();
  return async (files, to = '/arrivals') => {
    const id = toast.loading(`Adding ${files.length === 1 ? files[0]!.name : `${files.length} files`} …`);
    let done = 0;
    const failed: string[] = [];
    const leave = askBeforeLeaving();
    for (const group of to === '/arrivals' ? together(files) : files.map((file) => [file])) {
      const name = group.map((f) => f.name).join(' and ');
      await new Promise<void>((next) => {
        const form = new FormData();
        for (const file of group) form.append('file', file);
        const request = new XMLHttpRequest();
        request.open('POST', `/api/companies/${company}${to}`);
        request.upload.onprogress = (e) =>
          toast.loading(`${name}: ${Math.round((100 * e.loaded) / e.total)} % · ${done + 1} of ${files.length}`, { id });
        request.onload = () => {
          if (request.status >= 400) failed.push(`${name}: ${refusal(request.responseText)}`);
          next();
        };
        request.onerror = () => {
          failed.push(`${name}: the connection broke off`);
          next();
        };
        request.send(form);
      });
      done += group.length;
      dispatch(api.util.invalidateTags([list('arrival'), 'today']));
    }
    leave();
    if (failed.length) toast.error(failed.join(' · '), { id, duration: 12_000 });
    else toast.success(`${files.length === 1 ? files[0]!.name : `${files.length} files`} added`, { id });
  };
}
