import {
  BookOpen,
  CircleHelp,
  CircleUser,
  ClipboardList,
  FileText,
  Inbox,
  LogOut,
  Moon,
  Settings,
  Stamp,
  Store,
  Sun,
  SunMedium,
} from 'lucide-react';
import { useEffect, useState } from 'react';
import { NavLink, Outlet, useNavigate } from 'react-router';
import { DropAnywhere } from '../arrivals/drop';
import { Jump } from '../jump/jump';
import { authApi } from '../auth/api';
import { todayApi } from '../today/api';
import { useBillAtDesk } from './at-desk';
import { usePlace } from './company';
import { KeysDialog } from './keys/dialog';
import { useKeys } from './keys/registry';
import { useLive } from './live';

function useTheme(): [string, () => void] {
  const [theme, set] = useState(
    () => localStorage.getItem('theme') ?? (matchMedia('(prefers-color-scheme: dark)').matches ? 'ledgernight' : 'ledgerday'),
  );
  useEffect(() => {
    document.documentElement.dataset['theme'] = theme;
    localStorage.setItem('theme', theme);
  }, [theme]);
  return [theme, () => set(theme === 'ledgerday' ? 'ledgernight' : 'ledgerday')];
}

/** The places that this person may go to, each with its key and what waits there. */
function usePlaces() {
  const { company, can } = usePlace();
  const { currentData: today } = todayApi.useTodayQuery({ company: company.id });
  const waiting = today?.waiting;
  return [
    { to: '/', label: 'Today', icon: SunMedium, count: 0, show: true },
    { to: '/arrivals', label: 'Arrivals', icon: Inbox, count: waiting?.unread ?? 0, show: can('arrivals:see') },
    { to: '/bills', label: 'Bills', icon: FileText, count: waiting ? waiting.review + waiting.returned : 0, show: true },
    { to: '/exceptions', label: 'Exceptions', icon: CircleHelp, count: 0, show: can('bills:edit') || can('bills:return') },
    { to: '/approvals', label: 'Approvals', icon: Stamp, count: waiting?.approve ?? 0, show: can('bills:approve') },
    { to: '/ledger', label: 'Ledger', icon: BookOpen, count: waiting?.post ?? 0, show: can('ledger:see') },
    { to: '/suppliers', label: 'Suppliers', icon: Store, count: 0, show: true },
    { to: '/orders', label: 'Orders', icon: ClipboardList, count: 0, show: can('orders:see') },
    { to: '/settings', label: 'Settings', icon: Settings, count: 0, show: can('settings:see') },
  ]
    .map((p, i) => ({ ...p, key: String(i + 1) }))
    .filter((p) => p.show);
}

/** The rail and the place beside it; on a phone the rail lies at the foot. */
export function Shell() {
  const { me, company, choose } = usePlace();
  const [signOut] = authApi.useSignOutMutation();
  const [theme, turn] = useTheme();
  const navigate = useNavigate();
  const [keys, showKeys] = useState(false);
  const [jumping, jump] = useState<KeyboardEvent | null>(null);
  const places = usePlaces();
  // At the desk the page needs the room.
  const folded = useBillAtDesk() !== null;
  useLive(company.id);
  useKeys('Everywhere', [
    { key: 'Alt+T', what: 'To the messages at the foot' },
    ...places.map((p) => ({ key: `Alt+${p.key}`, what: p.label, run: () => void navigate(p.to) })),
    { key: '/', what: 'Search', run: () => document.querySelector<HTMLInputElement>('input[type=search]')?.focus() },
    { key: 'Ctrl+K', what: 'Go to anything', run: (e) => jump(e) },
    { key: 'F1', what: 'These keys', run: () => showKeys(true) },
    { key: '?', what: 'These keys', silent: true, run: () => showKeys(true) },
  ]);
  return (
    <div className="flex h-full bg-base-100 text-base-content max-md:flex-col-reverse">
      <nav
        aria-label="Places"
        className={`${folded ? 'w-[50px]' : 'w-[148px]'} flex shrink-0 flex-col border-r-2 border-double hair bg-base-200 text-[15px] max-md:w-full max-md:flex-row max-md:border-t-2 max-md:border-r-0 max-md:text-[11px] print:hidden`}
      >
        <div className="px-4 pt-4 pb-3 max-md:hidden">
          <div className="font-semibold text-primary" title="Ledgerline">
            {folded ? 'L' : 'Ledgerline'}
          </div>
          <div className={`mt-1 h-[3px] border-y border-primary ${folded ? 'w-3' : 'w-10'}`} />
        </div>
        {places.map(({ to, label, icon: Icon, count, key }) => (
          <NavLink
            key={to}
            to={to}
            end={to === '/'}
            title={folded ? `${label} (Alt+${key})` : `Alt+${key}`}
            aria-label={folded ? (count > 0 ? `${label}, ${count}` : label) : undefined}
            className={({ isActive }) =>
              `relative flex h-9 items-center gap-2 border-l-[3px] px-3 max-md:h-12 max-md:min-w-0 max-md:flex-1 max-md:flex-col max-md:justify-center max-md:gap-0 max-md:border-t-[3px] max-md:border-l-0 max-md:px-0 ${isActive ? 'border-primary bg-base-100 font-semibold text-primary' : 'border-transparent hover:bg-base-300/50'}`
            }
          >
            <Icon size={16} aria-hidden className="shrink-0" /> <span className={folded ? 'md:hidden' : 'grow max-md:grow-0'}>{label}</span>
            {count > 0 && (
              <span
                className={`quiet text-[13px] max-md:absolute max-md:top-0.5 max-md:right-1 max-md:text-[11px] ${folded ? 'absolute top-0 right-1 text-[11px]' : ''}`}
              >
                {count}
              </span>
            )}
          </NavLink>
        ))}
        <div className="mt-auto space-y-1 px-3 pb-3 text-[13px] max-md:hidden">
          <label className={folded ? 'hidden' : 'block'}>
            <span className="quiet">Company</span>
            <select
              aria-label="Company"
              className="line-field !h-8 truncate"
              value={company.id}
              onChange={(e) => {
                choose(e.target.value);
                void navigate('/');
              }}
            >
              {me.companies.map((c) => (
                <option key={c.id} value={c.id}>
                  {c.name}
                </option>
              ))}
            </select>
          </label>
          <div className={`flex items-center gap-1 pt-1 ${folded ? 'flex-col' : ''}`}>
            <NavLink
              to="/you"
              className={({ isActive }) => `grow truncate hover:underline ${isActive ? 'font-semibold text-primary' : ''}`}
              title={`${me.name}, ${company.name} (${company.roles.join(', ')}): your password and where you are signed in`}
              aria-label={folded ? me.name : undefined}
            >
              {folded ? <CircleUser size={16} aria-hidden /> : me.name}
            </NavLink>
            <button
              className="btn btn-ghost btn-xs btn-square"
              onClick={turn}
              title={theme === 'ledgerday' ? 'Dark theme' : 'Light theme'}
              aria-label="Change theme"
            >
              {theme === 'ledgerday' ? <Moon size={14} /> : <Sun size={14} />}
            </button>
            <button className="btn btn-ghost btn-xs btn-square" onClick={() => void signOut()} title="Sign out" aria-label="Sign out">
              <LogOut size={14} />
            </button>
          </div>
        </div>
      </nav>
      <main className="min-h-0 min-w-0 grow overflow-hidden">
        <DropAnywhere>
          <Outlet />
        </DropAnywhere>
      </main>
      {jumping && <Jump places={places} asked={jumping} close={() => jump(null)} />}
      {keys && <KeysDialog close={() => showKeys(false)} />}
    </div>
  );
}
