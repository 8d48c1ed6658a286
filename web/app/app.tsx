import { useMemo, useState } from 'react';
import { createBrowserRouter, RouterProvider, type RouteObject } from 'react-router';
import { Toaster } from 'sonner';
import { SignInPage } from '../auth/sign-in';
import { SetUpPage } from '../setup/set-up';
import { Trouble, Waiting } from '../ui/states';
import { authApi } from '../auth/api';
import { PlaceContext } from './company';
import { Shell } from './shell';

/** Each place comes when it is first opened: the first one need not wait for all. */
const routes: RouteObject[] = [
  { path: '/page', lazy: async () => ({ Component: (await import('../desk/apart-page')).ApartPage }) },
  {
    path: '/',
    element: <Shell />,
    HydrateFallback: Waiting,
    errorElement: <Trouble sentence="This place could not be opened. Load the page again; what you typed is kept." />,
    children: [
      { index: true, lazy: async () => ({ Component: (await import('../today/page')).TodayPage }) },
      { path: 'arrivals', lazy: async () => ({ Component: (await import('../arrivals/page')).ArrivalsPage }) },
      { path: 'arrivals/:id/pages', lazy: async () => ({ Component: (await import('../arrivals/pages')).PagesPage }) },
      { path: 'bills', lazy: async () => ({ Component: (await import('../bills/page')).BillsPage }) },
      { path: 'bills/repeating', lazy: async () => ({ Component: (await import('../repeats/page')).RepeatsPage }) },
      { path: 'bills/alike', lazy: async () => ({ Component: (await import('../coding/alike')).AlikePage }) },
      { path: 'bills/rules', lazy: async () => ({ Component: (await import('../coding/rules')).RulesPage }) },
      { path: 'bills/:id', lazy: async () => ({ Component: (await import('../desk/page')).DeskPage }) },
      { path: 'approvals', lazy: async () => ({ Component: (await import('../approvals/page')).ApprovalsPage }) },
      { path: 'ledger', lazy: async () => ({ Component: (await import('../ledger/page')).LedgerPage }) },
      { path: 'ledger/tax', lazy: async () => ({ Component: (await import('../ledger/tax')).TaxPage }) },
      { path: 'ledger/:id', lazy: async () => ({ Component: (await import('../ledger/entry')).EntryPage }) },
      { path: 'exceptions', lazy: async () => ({ Component: (await import('../exceptions/page')).ExceptionsPage }) },
      { path: 'orders', lazy: async () => ({ Component: (await import('../orders/page')).OrdersPage }) },
      { path: 'orders/not-billed', lazy: async () => ({ Component: (await import('../orders/not-billed')).NotBilledPage }) },
      { path: 'orders/:id', lazy: async () => ({ Component: (await import('../orders/order')).OrderPage }) },
      { path: 'suppliers', lazy: async () => ({ Component: (await import('../suppliers/page')).SuppliersPage }) },
      { path: 'suppliers/:id', lazy: async () => ({ Component: (await import('../suppliers/account')).SupplierPage }) },
      { path: 'imports/:list', lazy: async () => ({ Component: (await import('../imports/page')).ImportPage }) },
      { path: 'imports/:list/:id', lazy: async () => ({ Component: (await import('../imports/page')).ImportPage }) },
      { path: 'you', lazy: async () => ({ Component: (await import('../auth/you')).YouPage }) },
      { path: 'settings', lazy: async () => ({ Component: (await import('../settings/page')).SettingsPage }) },
      { path: 'settings/:area', lazy: async () => ({ Component: (await import('../settings/page')).SettingsPage }) },
      { path: '*', element: <Trouble sentence="This page is not here." /> },
    ],
  },
];

export function App() {
  const { data, isError, isLoading } = authApi.useSessionQuery();
  const [chosen, choose] = useState(() => localStorage.getItem('company') ?? '');
  const me = data?.me ?? null;
  const router = useMemo(() => (me ? createBrowserRouter(routes) : null), [me?.id]); // eslint-disable-line react-hooks/exhaustive-deps -- a new person starts afresh
  if (isLoading) return <Waiting />;
  if (isError || !data) return <Trouble sentence="The server does not answer. Start it with npm start, then load this page again." />;
  if (!data.organisation) return <SetUpPage />;
  if (!me || !router) return <SignInPage session={data} />;
  const company = me.companies.find((c) => c.id === chosen) ?? me.companies[0];
  if (!company) return <Trouble sentence="You have no role in any company yet. Ask an administrator for one." />;
  return (
    <PlaceContext.Provider
      value={{
        me,
        company,
        choose: (id) => {
          localStorage.setItem('company', id);
          choose(id);
        },
      }}
    >
      <RouterProvider router={router} />
      <Toaster position="bottom-center" toastOptions={{ className: 'font-sans' }} />
    </PlaceContext.Provider>
  );
}
