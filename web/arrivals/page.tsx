import { Camera, CircleAlert, Copy, Eye, FileCheck, FileText, FolderCog, FolderX, Layers, Loader, Paperclip } from 'lucide-react';
import { useRef, useState } from 'react';
import { Link } from 'react-router';
import type { Arrival, ArrivalDocument } from '@ledgerline/contract';
import { sentenceOf } from '../app/api';
import { usePlace } from '../app/company';
import { useRows } from '../ui/infinite';
import { arrivalsApi } from './api';
import { showSize, showTime } from '../ui/format';
import { StageWord } from '../ui/stage';
import { Empty, Head, Trouble, Waiting } from '../ui/states';
import { ChannelIcon } from './channel';
import { ScanningDialog } from './scanning';
import { useUpload } from './upload';

const states = {
  waiting: { icon: Loader, word: 'waiting to be read' },
  reading: { icon: Loader, word: 'being read' },
  read: { icon: FileCheck, word: 'read' },
  aside: { icon: FileText, word: 'to one side' },
  unreadable: { icon: CircleAlert, word: 'not read' },
  duplicate: { icon: Copy, word: 'here already' },
} as const;

/** How far the pages that are pictures have been read, and what is being done. */
function Reading({ progress: { done, of, doing } }: { progress: NonNullable<ArrivalDocument['progress']> }) {
  return (
    <span className="flex min-w-0 items-center gap-2 text-[13px] quiet">
      {of > 1 && <progress className="progress progress-primary w-24" value={done} max={of} aria-label={`${done} of ${of} pages read`} />}
      <span className="truncate">
        {of > 1 ? `${done} of ${of} pages · ` : ''}
        {doing}
      </span>
    </span>
  );
}

function DocumentRow({ doc, company }: { doc: ArrivalDocument; company: string }) {
  const { can } = usePlace();
  const [retry] = arrivalsApi.useRetryMutation();
  const { icon: Icon, word } = states[doc.state as keyof typeof states];
  const busy = doc.state === 'waiting' || doc.state === 'reading';
  const bill = doc.billId ?? doc.duplicateBillId;
  return (
    <div className="flex min-h-8 items-center gap-2 py-0.5">
      <span
        className={`inline-flex w-32 shrink-0 items-center gap-1.5 text-[13px] ${doc.state === 'unreadable' ? 'text-error' : doc.state === 'read' ? 'text-success' : 'quiet'}`}
      >
        <Icon size={14} className={busy ? 'animate-spin' : ''} aria-hidden />
        {word}
      </span>
      <a
        className="max-w-60 shrink-0 truncate hover:underline"
        title={doc.name}
        href={`/api/companies/${company}/documents/${doc.id}/file`}
        target="_blank"
        rel="noreferrer"
      >
        {doc.name}
      </a>
      <span className="shrink-0 text-[13px] quiet">
        {doc.pagesOf ? `${doc.pagesOf} · ` : doc.pageCount ? `${doc.pageCount} p. · ` : ''}
        {showSize(doc.size)}
      </span>
      {doc.progress && <Reading progress={doc.progress} />}
      {doc.note && (
        <span className="min-w-0 truncate text-[13px]" title={doc.note}>
          {doc.note}
        </span>
      )}
      {doc.state === 'unreadable' && can('arrivals:add') && /\.(pdf|xml|png|jpe?g|tiff?|webp|heic)$/i.test(doc.name) && (
        <button className="btn btn-xs" onClick={() => void retry({ company, id: doc.id })}>
          Try again
        </button>
      )}
      {bill && (
        <Link className="ml-auto shrink-0 truncate font-medium text-primary hover:underline" to={`/bills/${bill}`}>
          {doc.billLabel || 'Open the bill'}
        </Link>
      )}
      {doc.billStage && (
        <span className="w-32 shrink-0 text-[13px]">
          <StageWord stage={doc.billStage} />
        </span>
      )}
    </div>
  );
}

function Message({ company, id }: { company: string; id: string }) {
  const { currentData: data } = arrivalsApi.useArrivalQuery({ company, id });
  if (!data) return <Waiting />;
  return (
    <div className="mb-2 ml-8 border-l-2 border-double hair pl-4 text-[14px]">
      <dl className="grid grid-cols-[auto_1fr] gap-x-3 text-[13px]">
        {data.headers
          .filter(([k]) => ['from', 'to', 'subject', 'date', 'message-id'].includes(k))
          .map(([k, v]) => (
            <div key={k} className="contents">
              <dt className="quiet">{k}</dt>
              <dd className="truncate">{v}</dd>
            </div>
          ))}
      </dl>
      <pre className="mt-2 max-h-56 overflow-auto font-sans whitespace-pre-wrap">{data.body ?? 'No text.'}</pre>
      {data.hasOriginal && (
        <a className="text-accent hover:underline" href={`/api/companies/${company}/arrivals/${id}/original`}>
          The message as it came
        </a>
      )}
    </div>
  );
}

function Row({ arrival, company }: { arrival: Arrival; company: string }) {
  const { can } = usePlace();
  const [openAgain] = arrivalsApi.useOpenAgainMutation();
  const [open, setOpen] = useState(false);
  return (
    <li className="border-t hair px-6 py-1.5">
      <div className="flex h-7 items-center gap-2">
        <ChannelIcon channel={arrival.channel} />
        <span className="max-w-72 truncate font-medium">{arrival.sender ?? 'Unknown sender'}</span>
        <span className="min-w-0 grow truncate">{arrival.subject}</span>
        {arrival.documents.some((d) => d.paper) && (
          <Link className="btn btn-ghost btn-xs" to={`/arrivals/${arrival.id}/pages`}>
            <Layers size={13} aria-hidden />
            Pages
          </Link>
        )}
        {arrival.channel === 'email' && (
          <button className="btn btn-ghost btn-xs" aria-expanded={open} onClick={() => setOpen(!open)}>
            <Eye size={13} aria-hidden />
            {open ? 'Hide message' : 'Message'}
          </button>
        )}
        <span className="w-32 shrink-0 text-right text-[13px] quiet">{showTime(arrival.receivedAt)}</span>
      </div>
      {arrival.note && (
        <p className={`ml-6 flex items-center gap-1.5 text-[14px] ${arrival.state === 'opening' ? 'quiet' : 'text-error'}`}>
          {arrival.state !== 'opening' && <CircleAlert size={14} aria-hidden />}
          {arrival.note}
          {arrival.state === 'failed' && can('arrivals:add') && (
            <button className="btn btn-xs" onClick={() => void openAgain({ company, id: arrival.id })}>
              Try again
            </button>
          )}
        </p>
      )}
      <div className="ml-6">
        {arrival.documents.map((d) => (
          <DocumentRow key={d.id} doc={d} company={company} />
        ))}
      </div>
      {open && <Message company={company} id={arrival.id} />}
    </li>
  );
}

/** What the doors cannot take in, until somebody has seen to it. */
const Notices = ({ sentences }: { sentences: string[] }) =>
  sentences.length > 0 && (
    <ul
      role="status"
      aria-label="To be seen to"
      className="max-h-32 shrink-0 overflow-auto border-b-2 border-warning bg-warning/10 px-6 py-2"
    >
      {sentences.map((sentence) => (
        <li key={sentence} className="flex items-center gap-2 py-0.5 text-[14px]">
          <FolderX size={14} aria-hidden className="shrink-0" />
          {sentence}
        </li>
      ))}
    </ul>
  );

export function ArrivalsPage() {
  const { company, can } = usePlace();
  const arrivals = arrivalsApi.useArrivalsInfiniteQuery({ company: company.id });
  const list = useRows(arrivals, (page) => page.arrivals);
  const notices = arrivals.currentData?.pages[0]?.notices ?? [];
  const input = useRef<HTMLInputElement>(null);
  const [scanning, setScanning] = useState(false);
  const camera = useRef<HTMLInputElement>(null);
  const upload = useUpload(company.id);
  return (
    <div className="flex h-full flex-col">
      <Head title="Arrivals" detail={`Send mail to ${company.mailAddress}, use the scan folder, or drop files anywhere`}>
        {can('arrivals:add') && (
          <>
            <input
              ref={input}
              type="file"
              multiple
              hidden
              aria-label="Files"
              onChange={(e) => {
                void upload([...(e.target.files ?? [])]);
                e.target.value = '';
              }}
            />
            <input
              ref={camera}
              type="file"
              accept="image/*"
              capture="environment"
              hidden
              aria-label="Photo"
              onChange={(e) => {
                void upload([...(e.target.files ?? [])]);
                e.target.value = '';
              }}
            />
            <button className="btn btn-sm lg:hidden" onClick={() => camera.current?.click()}>
              <Camera size={14} aria-hidden />
              Take a photo
            </button>
            <button className="btn btn-ghost btn-sm" onClick={() => setScanning(true)}>
              <FolderCog size={14} aria-hidden />
              Scan folder
            </button>
            <button className="btn btn-primary btn-sm" onClick={() => input.current?.click()}>
              <Paperclip size={14} aria-hidden />
              Add files
            </button>
          </>
        )}
      </Head>
      {scanning && <ScanningDialog close={() => setScanning(false)} />}
      <Notices sentences={notices} />
      <div className="min-h-0 grow overflow-auto">
        {list.error ? (
          <Trouble sentence={sentenceOf(list.error)} />
        ) : list.loading ? (
          <Waiting />
        ) : list.rows.length === 0 ? (
          <Empty>Nothing has come in yet.</Empty>
        ) : (
          <ul>
            {list.rows.map((a) => (
              <Row key={a.id} arrival={a} company={company.id} />
            ))}
          </ul>
        )}
        {list.more && (
          <div className="px-6 py-3">
            <button className="btn btn-sm" onClick={list.load}>
              Older
            </button>
          </div>
        )}
      </div>
    </div>
  );
}
