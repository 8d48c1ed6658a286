import { BookOpen, FileText, Inbox, LogOut, Moon, Stamp, Store, Sun, SunMedium } from 'lucide-react';
import { useEffect, useState } from 'react';
import { NavLink, Outlet, useNavigate } from 'react-router';
import { DropAnywhere } from '../arrivals/drop';
import { api } from './api';
import { usePlace } from './company';
import { KeysDialog } from './keys';
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

/** The rail and the place beside it. */
export function Shell() {
  const { me, company, choose, can } = usePlace();
  const { data: today } = api.useTodayQuery({ company: company.id });
  const [signOut] = api.useSignOutMutation();
  const [theme, turn] = useTheme();
  const navigate = useNavigate();
  const [keys, showKeys] = useState(false);
  useLive(company.id);
  const waiting = today?.waiting;
  const places = [
    { to: '/', label: 'Today', icon: SunMedium, count: 0, key: '1', show: true },
    { to: '/arrivals', label: 'Arrivals', icon: Inbox, count: waiting?.unread ?? 0, key: '2', show: can('arrivals:see') },
    { to: '/bills', label: 'Bills', icon: FileText, count: waiting ? waiting.review + waiting.returned : 0, key: '3', show: true },
    { to: '/approvals', label: 'Approvals', icon: Stamp, count: waiting?.approve ?? 0, key: '4', show: can('bills:approve') },
    { to: '/ledger', label: 'Ledger', icon: BookOpen, count: waiting?.post ?? 0, key: '5', show: can('ledger:see') },
    { to: '/suppliers', label: 'Suppliers', icon: Store, count: 0, key: '6', show: true },
  ].filter((p) => p.show);
  useEffect(() => {
    const listen = (event: KeyboardEvent) => {
      const typing = event.target instanceof HTMLElement && /INPUT|TEXTAREA|SELECT/.test(event.target.tagName);
      const place = event.altKey && places.find((p) => p.key === event.key);
      if (place) {
        event.preventDefault();
        void navigate(place.to);
      }
      if (!typing && event.key === '?') showKeys(true);
      if (!typing && event.key === '/') {
        event.preventDefault();
        document.querySelector<HTMLInputElement>('input[type=search]')?.focus();
      }
    };
    addEventListener('keydown', listen);
    return () => removeEventListener('keydown', listen);
  });
  return (
    <div className="flex h-full bg-base-100 text-base-content">
      <nav
        aria-label="Places"
        className="flex w-[148px] shrink-0 flex-col border-r-2 border-double hair bg-base-200 text-[15px] print:hidden"
      >
        <div className="px-4 pt-4 pb-3">
          <div className="font-semibold text-primary">Ledgerline</div>
          <div className="mt-1 h-[3px] w-10 border-y border-primary" />
        </div>
        {places.map(({ to, label, icon: Icon, count, key }) => (
          <NavLink
            key={to}
            to={to}
            end={to === '/'}
            title={`Alt+${key}`}
            className={({ isActive }) =>
              `flex h-9 items-center gap-2 border-l-[3px] px-3 ${isActive ? 'border-primary bg-base-100 font-semibold text-primary' : 'border-transparent hover:bg-base-300/50'}`
            }
          >
            <Icon size={16} aria-hidden /> <span className="grow">{label}</span>
            {count > 0 && <span className="quiet text-[13px]">{count}</span>}
          </NavLink>
        ))}
        <div className="mt-auto space-y-1 px-3 pb-3 text-[13px]">
          <label className="block">
            <span className="quiet">Company</span>
            <select
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
          <div className="flex items-center gap-1 pt-1">
            <span className="grow truncate" title={company.roles.join(', ')}>
              {me.name}
            </span>
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
      <main className="min-w-0 grow overflow-hidden">
        <DropAnywhere>
          <Outlet />
        </DropAnywhere>
      </main>
      {keys && <KeysDialog close={() => showKeys(false)} />}
    </div>
  );
}
