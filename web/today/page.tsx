import { lazy, Suspense } from 'react';
import { Link } from 'react-router';
import { sentenceOf } from '../app/api';
import { usePlace } from '../app/company';
import { ChannelIcon } from '../arrivals/channel';
import { money, showDay, showTime } from '../ui/format';
import { GuideNote } from '../setup/guide';
import { todayApi } from './api';
import { Empty, Head, Trouble, Waiting } from '../ui/states';

// Charts are large: they come after the words.
const WeekChart = lazy(async () => ({ default: (await import('./week-chart')).WeekChart }));

const tasks: Record<string, string> = { review: 'Review', returned: 'Returned to you', approve: 'Approve', post: 'Post' };

export function TodayPage() {
  const { company, me, can } = usePlace();
  const { currentData: data, error } = todayApi.useTodayQuery({ company: company.id });
  if (error) return <Trouble sentence={sentenceOf(error)} />;
  if (!data) return <Waiting />;
  const w = data.waiting;
  const facts = [
    { n: w.review, label: 'to review', to: '/bills?q=stage:read', show: can('bills:edit') },
    { n: w.returned, label: 'returned', to: '/bills?q=stage:returned', show: can('bills:edit') },
    { n: w.approve, label: 'to approve', to: '/approvals', show: can('bills:approve') },
    { n: w.post, label: 'ready to post', to: '/bills?q=stage:approved', show: can('bills:post') },
    { n: w.unread, label: 'not read', to: '/arrivals', show: can('arrivals:see') },
  ].filter((f) => f.show);
  return (
    <div className="flex h-full flex-col overflow-auto">
      <Head title={`${company.name}`} detail={`Today, ${showDay(new Date().toISOString().slice(0, 10))} · ${me.name}`} />
      <GuideNote />
      <div className="flex gap-8 border-b hair px-6 py-4">
        {facts.map((f) => (
          <Link key={f.label} to={f.to} className="group">
            <span className="text-3xl font-semibold text-primary">{f.n}</span> <span className="group-hover:underline">{f.label}</span>
          </Link>
        ))}
      </div>
      <div className="grid grid-cols-[3fr_2fr] gap-8 px-6 py-4">
        <section>
          {data.mentions.length > 0 && (
            <>
              <h2 className="mb-1 font-semibold">Written to you</h2>
              <ul className="mb-4" aria-label="Written to you">
                {data.mentions.map((m) => (
                  <li key={m.noteId} className="border-t hair py-1.5">
                    <Link className="font-medium text-primary hover:underline" to={`/bills/${m.billId}`}>
                      {m.supplier ?? 'Unknown supplier'} {m.invoiceNumber}
                    </Link>{' '}
                    <span className="text-[13px] quiet">
                      {m.person}, {showTime(m.at)}
                    </span>
                    <br />
                    <span className="line-clamp-2">{m.text}</span>
                  </li>
                ))}
              </ul>
            </>
          )}
          <h2 className="mb-1 font-semibold">Waiting for you, most urgent first</h2>
          {data.oldest.length === 0 ? (
            <Empty>Nothing waits for you.</Empty>
          ) : (
            <table className="w-full">
              <tbody>
                {data.oldest.map((b) => (
                  <tr key={b.id} className="hover:bg-base-200">
                    <td className="plain text-[13px] quiet">{tasks[b.task]}</td>
                    <td className="plain max-w-56 truncate">
                      <Link
                        className="font-medium text-primary hover:underline"
                        to={b.task === 'approve' ? `/approvals?bill=${b.id}` : `/bills/${b.id}`}
                      >
                        {b.supplier ?? 'Unknown supplier'}
                      </Link>
                    </td>
                    <td className="plain">{b.invoiceNumber}</td>
                    <td className="plain text-[13px]">{b.dueDate ? `due ${showDay(b.dueDate)}` : ''}</td>
                    <td className="plain num">
                      {b.currency} {money(b.gross, b.currency)}
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          )}
        </section>
        <section>
          <h2 className="mb-1 font-semibold">Falling due, {company.baseCurrency}</h2>
          <table className="w-full">
            <tbody>
              {data.due.map((d) => (
                <tr key={d.label}>
                  <td className={`plain ${d.label === 'Late' && d.count ? 'text-error' : ''}`}>{d.label}</td>
                  <td className="plain quiet text-[13px]">{d.count} open</td>
                  <td className="plain num">{money(d.amount, company.baseCurrency)}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </section>
        <section>
          <h2 className="mb-1 font-semibold">Last two weeks: bills arrived and posted</h2>
          <div className="h-44" aria-hidden>
            <Suspense>
              <WeekChart of={data.week} />
            </Suspense>
          </div>
          <p className="text-[13px]">
            <span className="text-primary">■ arrived</span> <span className="text-accent">■ posted</span>
          </p>
        </section>
        {can('arrivals:see') && (
          <section>
            <h2 className="mb-1 font-semibold">Came in last</h2>
            <ul>
              {data.latest.map((a) => (
                <li key={a.id} className="flex items-center gap-2 border-t hair py-1.5">
                  <ChannelIcon channel={a.channel} />
                  <span className="min-w-0 grow truncate">{a.subject ?? a.sender}</span>
                  <span className="shrink-0 text-[13px] quiet">{showTime(a.receivedAt)}</span>
                </li>
              ))}
            </ul>
          </section>
        )}
      </div>
    </div>
  );
}
