import { Check, Circle, CircleSlash } from 'lucide-react';
import { Link } from 'react-router';
import { toast } from 'sonner';
import type { GuideRow, GuideStep, SetStep } from '@ledgerline/contract';
import { sentenceOf } from '../app/api';
import { usePlace } from '../app/company';
import { Head, Trouble, Waiting } from '../ui/states';
import { setupApi } from './api';

interface Told {
  title: string;
  why: string;
  /** Where it is done. */
  ways: [label: string, to: string][];
  /** What is said of it as it is, and of leaving it out. */
  fine?: string;
  skip?: string;
}
const steps: Record<GuideStep, Told> = {
  company: {
    title: 'The company',
    why: 'Its tax number and the names that suppliers give it tell which invoices are its own.',
    ways: [['Fill in', '/settings/company']],
    skip: 'It has no tax number',
  },
  chart: {
    title: 'The chart of accounts',
    why: 'You begin with a small one. Bring in your own from a file, or add accounts as you need them.',
    ways: [
      ['From a file', '/imports/accounts'],
      ['Look at it', '/settings/accounts'],
    ],
    fine: 'Keep the small one',
  },
  tax: {
    title: 'Tax codes',
    why: 'Those of the country are there, with their rates. Look whether they are the ones that you claim by.',
    ways: [['Look at them', '/settings/tax-codes']],
    fine: 'They are right',
  },
  people: {
    title: 'People',
    why: 'Nobody approves what they coded themselves: it takes two.',
    ways: [['Add somebody', '/settings/people']],
  },
  mailbox: {
    title: 'The mailbox',
    why: 'Suppliers send invoices to the company’s own address. Send one there yourself to see it arrive.',
    ways: [
      ['Change the address', '/settings/company'],
      ['See what came', '/arrivals'],
    ],
    skip: 'Nothing comes by mail',
  },
  suppliers: {
    title: 'Suppliers',
    why: 'Bring in your list, or let each be made from its first invoice.',
    ways: [
      ['From a file', '/imports/suppliers'],
      ['Suppliers', '/suppliers'],
    ],
    skip: 'They come with their invoices',
  },
  document: {
    title: 'A first document',
    why: 'Drop an invoice anywhere on the screen. It is read, and waits under Bills.',
    ways: [['Add a document', '/arrivals']],
  },
};

const signs = { done: Check, fine: Check, skipped: CircleSlash, open: Circle };
const named = { done: 'Done', fine: 'Done', skipped: 'Left out', open: 'To do' };

/** From nothing to the first posted bill: each step is done where it belongs, left, and taken up again. */
export function GuideArea() {
  const { company } = usePlace();
  const { currentData, error } = setupApi.useGuideQuery({ company: company.id });
  return (
    <>
      <Head
        title="First steps"
        detail="What it takes until a first bill can be posted. In any order; each can be left and taken up again"
      />
      {error ? (
        <Trouble sentence={sentenceOf(error)} />
      ) : !currentData ? (
        <Waiting />
      ) : (
        <ol aria-label="First steps" className="min-h-0 grow overflow-auto px-6 py-2">
          {currentData.steps.map((row, i) => (
            <Step key={row.step} row={row} number={i + 1} />
          ))}
        </ol>
      )}
    </>
  );
}

function Step({ row, number }: { row: GuideRow; number: number }) {
  const { company, can } = usePlace();
  const [set] = setupApi.useSetStepMutation();
  const { title, why, ways, fine, skip } = steps[row.step];
  const Sign = signs[row.state];
  const say = (state: SetStep['state']) =>
    void set({ company: company.id, step: row.step, body: { state } })
      .unwrap()
      .catch((error: unknown) => toast.error(sentenceOf(error)));
  return (
    <li className="flex max-w-3xl gap-3 border-b hair py-2.5 last:border-b-0">
      <Sign
        size={20}
        role="img"
        aria-label={named[row.state]}
        className={`mt-0.5 shrink-0 ${row.state === 'open' ? 'text-accent' : row.state === 'skipped' ? 'quiet' : 'text-success'}`}
      />
      <div className="min-w-0 grow">
        <h2 className="font-semibold">
          {number}. {title} <span className="ml-1 text-[13px] font-normal quiet">{row.fact}</span>
        </h2>
        <p className="text-[14px]">{why}</p>
        <div className="mt-1 flex flex-wrap items-center gap-2">
          {ways.map(([label, to], i) => (
            <Link key={to} to={to} className={`btn btn-sm ${i === 0 && row.state === 'open' ? 'btn-primary' : ''}`}>
              {label}
            </Link>
          ))}
          {can('settings:edit') && row.state === 'open' && fine && (
            <button className="btn btn-ghost btn-sm" onClick={() => say('fine')}>
              {fine}
            </button>
          )}
          {can('settings:edit') && row.state === 'open' && skip && (
            <button className="btn btn-ghost btn-sm" onClick={() => say('skipped')}>
              {skip}
            </button>
          )}
          {can('settings:edit') && (row.state === 'fine' || row.state === 'skipped') && (
            <button className="btn btn-ghost btn-sm" onClick={() => say('open')}>
              Take it up again
            </button>
          )}
        </div>
      </div>
    </li>
  );
}

/** On Today, while a company has posted nothing: how far it is, and what comes next. */
export function GuideNote() {
  const { company, can } = usePlace();
  const { currentData: guide } = setupApi.useGuideQuery({ company: company.id }, { skip: !can('settings:edit') });
  if (!guide || guide.over) return null;
  const next = guide.steps.find((s) => s.state === 'open'),
    left = guide.steps.filter((s) => s.state === 'open').length;
  return (
    <section aria-label="First steps" className="flex items-center gap-3 border-b hair bg-base-200 px-6 py-2.5">
      <p className="min-w-0 grow">
        <b>First steps:</b> {guide.steps.length - left} of {guide.steps.length} are done.{' '}
        {next && `Next: ${steps[next.step].title.replace(/^The /, 'the ').replace(/^A /, 'a ')}.`}
      </p>
      <Link to="/settings/first-steps" className="btn btn-primary btn-sm">
        Go on
      </Link>
    </section>
  );
}
