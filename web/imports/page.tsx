import { CircleCheck, FileUp } from 'lucide-react';
import { useState } from 'react';
import { useDropzone } from 'react-dropzone';
import { Link, useNavigate, useParams } from 'react-router';
import { toast } from 'sonner';
import { importLists, type ImportListName, type ImportRun } from '@ledgerline/contract';
import { sentenceOf } from '../app/api';
import { usePlace } from '../app/company';
import { useKeys } from '../app/keys/registry';
import { Problem } from '../ui/form';
import { Head, Trouble, Waiting } from '../ui/states';
import { importsApi } from './api';
import { ColumnsOfFile } from './columns';
import { Findings } from './findings';
import { importable } from './lists';
import { saveList } from './save';

/** Rows of a file into one of the company's lists: chosen, its columns named, looked through, and only then brought in. */
export function ImportPage() {
  const { list, id } = useParams();
  const known = importLists.find((l) => l === list);
  if (!known) return <Trouble sentence="This page is not here." />;
  return id ? <Run key={id} list={known} id={id} /> : <Choose list={known} />;
}

function Choose({ list }: { list: ImportListName }) {
  const { company } = usePlace();
  const navigate = useNavigate();
  const [take, { isLoading }] = importsApi.useTakeFileMutation();
  const [trouble, setTrouble] = useState<string | null>(null);
  const { title, many, path } = importable[list];
  const { getRootProps, getInputProps, open, isDragActive } = useDropzone({
    noClick: true,
    noKeyboard: true,
    noDragEventsBubbling: true,
    multiple: false,
    onDrop([file]) {
      if (!file) return;
      setTrouble(null);
      take({ company: company.id, list, file })
        .unwrap()
        .then(
          ({ id }) => void navigate(`/imports/${list}/${id}`),
          (error: unknown) => setTrouble(sentenceOf(error)),
        );
    },
  });
  const template = (format: 'csv' | 'xlsx') => () => saveList(company.id, list, { format, empty: '1' });
  return (
    <div className="flex h-full flex-col">
      <Head title={`${title} from a file`} detail={`${company.name}. Nothing changes before you have seen what would`}>
        <Link className="btn btn-sm" to={path}>
          Back to {many}
        </Link>
      </Head>
      <div className="max-w-2xl space-y-4 px-6 py-5">
        <Problem sentence={trouble} />
        <div
          {...getRootProps({
            className: `flex flex-col items-center gap-3 rounded-box border-2 border-dashed px-6 py-10 ${isDragActive ? 'border-primary bg-primary/5' : 'border-base-300'}`,
          })}
        >
          <input {...getInputProps({ 'aria-label': 'File' })} />
          <FileUp size={28} className="text-primary" aria-hidden />
          <p>{isLoading ? 'Looking through it …' : isDragActive ? 'Drop it here' : 'Drop a CSV or XLSX file here'}</p>
          <button className="btn btn-primary btn-sm" onClick={open} disabled={isLoading} autoFocus>
            Choose a file
          </button>
        </div>
        <ul className="list-disc space-y-1 pl-5 text-[14px]">
          <li>The heads may be called anything: you say which column is what, and it is remembered.</li>
          <li>Rows that are there already are changed, others are made. Nothing is removed.</li>
          <li>An empty cell empties the field; a column that is left out leaves it alone.</li>
          {list === 'rates' && <li>Tables of rates against the euro (CSV, XML) are worked out in {company.baseCurrency}.</li>}
          {list === 'suppliers' && <li>New bank details wait until a second person has verified them.</li>}
        </ul>
        <p className="text-[14px]">
          A file to fill in:{' '}
          <button className="text-accent hover:underline" onClick={template('xlsx')}>
            XLSX
          </button>{' '}
          or{' '}
          <button className="text-accent hover:underline" onClick={template('csv')}>
            CSV
          </button>
        </p>
      </div>
    </div>
  );
}

const figure = (n: number) => n.toLocaleString('en-GB');
const atWork = (run: ImportRun | undefined) => run?.state === 'waiting' || run?.state === 'running';

function Run({ list, id }: { list: ImportListName; id: string }) {
  const { company } = usePlace();
  const [bring, { isLoading }] = importsApi.useBringInMutation();
  const { currentData: last } = importsApi.endpoints.importRun.useQueryState({ company: company.id, id });
  const { currentData: run, error } = importsApi.useImportRunQuery(
    { company: company.id, id },
    { pollingInterval: atWork(last) ? 700 : 0 },
  );
  const { title, many, path } = importable[list];
  const start = (goodOnly: boolean) =>
    void bring({ company: company.id, id, goodOnly })
      .unwrap()
      .catch((e: unknown) => toast.error(sentenceOf(e)));
  const ready = run !== undefined && ['checked', 'failed'].includes(run.state) && run.fault === null && run.counts.good > 0 && !isLoading;
  useKeys('Import', [{ key: 'Ctrl+Enter', what: 'Bring the rows in', when: () => ready, run: () => run && start(run.counts.bad > 0) }]);
  if (error) return <Trouble sentence={sentenceOf(error)} />;
  if (!run) return <Waiting />;
  const { counts } = run;
  return (
    <div className="flex h-full flex-col">
      <Head title={`${title} from a file`} detail={run.fileName}>
        {run.state !== 'done' && (
          <Link className="btn btn-sm" to={`/imports/${list}`}>
            Another file
          </Link>
        )}
        <Link className="btn btn-sm" to={path}>
          {run.state === 'done' ? `To the ${many}` : `Back to ${many}`}
        </Link>
      </Head>
      {run.state === 'done' ? (
        <p role="status" className="flex items-center gap-2 px-6 py-6 text-lg">
          <CircleCheck className="text-success" aria-hidden />
          {[
            [counts.made, 'made'],
            [counts.changed, 'changed'],
            [counts.same, 'as they were'],
            [counts.bad, 'left out'],
          ]
            .filter(([n]) => n !== 0)
            .map(([n, said]) => `${figure(n as number)} ${said}`)
            .join(', ')}
          .
        </p>
      ) : (
        <>
          <ColumnsOfFile run={run} locked={atWork(run)} />
          {run.fault === null && <Outcome run={run} />}
          {counts.bad + counts.warnings > 0 ? <Findings run={run} /> : <div className="grow" />}
          <footer className="flex shrink-0 items-center gap-4 border-t hair px-6 py-2">
            <Problem sentence={run.note} />
            {atWork(run) ? (
              <Progress run={run} />
            ) : run.fault !== null ? (
              <span className="ml-auto text-[13px] quiet">Once the columns are named, you see what would happen.</span>
            ) : (
              <span className="ml-auto flex items-center gap-3">
                {counts.bad > 0 && counts.good > 0 && <span className="text-[13px] quiet">Rows with errors are left out.</span>}
                <button className="btn btn-primary btn-sm" disabled={!ready} onClick={() => start(counts.bad > 0)}>
                  {counts.bad > 0
                    ? `Bring in the ${figure(counts.good)} good ${counts.good === 1 ? 'row' : 'rows'}`
                    : counts.good === 1
                      ? 'Bring in the row'
                      : `Bring in all ${figure(counts.good)} rows`}
                </button>
              </span>
            )}
          </footer>
        </>
      )}
    </div>
  );
}

/** What bringing the rows in would do. */
function Outcome({ run: { counts, list } }: { run: ImportRun }) {
  const { one, many } = importable[list];
  const parts: [n: number, said: string, tone?: string][] = [
    [counts.made, `new ${counts.made === 1 ? one : many}`],
    [counts.changed, 'changed'],
    [counts.same, 'as they are already'],
    [counts.bad, counts.bad === 1 ? 'row with an error' : 'rows with errors', 'text-error'],
    [counts.warnings, 'to look at'],
  ];
  return (
    <p aria-label="What it would do" className="flex shrink-0 flex-wrap gap-x-6 px-6 py-2">
      {parts
        .filter(([n]) => n > 0)
        .map(([n, said, tone = '']) => (
          <span key={said} className={tone}>
            <span className="font-semibold tabular-nums">{figure(n)}</span> {said}
          </span>
        ))}
    </p>
  );
}

function Progress({ run: { progress, counts, state } }: { run: ImportRun }) {
  const all = counts.made + counts.changed;
  return (
    <span role="status" className="ml-auto flex items-center gap-3">
      <progress className="progress progress-primary w-64" value={progress} max={Math.max(1, all)} aria-label="Brought in" />
      {state === 'waiting' ? 'Waiting for its turn' : progress < all ? `${figure(progress)} of ${figure(all)}` : 'Writing the event log'}
    </span>
  );
}
