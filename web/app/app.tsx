import { useMemo, useState } from 'react';
import { createBrowserRouter, RouterProvider } from 'react-router';
import { Toaster } from 'sonner';
import { ApprovalsPage } from '../approvals/page';
import { ArrivalsPage } from '../arrivals/page';
import { PagesPage } from '../arrivals/pages';
import { SignInPage } from '../auth/sign-in';
import { TaxPage } from '../ledger/tax';
import { SetUpPage } from '../setup/set-up';
import { YouPage } from '../auth/you';
import { BillsPage } from '../bills/page';
import { ApartPage } from '../desk/apart-page';
import { AlikePage } from '../coding/alike';
import { RulesPage } from '../coding/rules';
import { DeskPage } from '../desk/page';
import { EntryPage } from '../ledger/entry';
import { LedgerPage } from '../ledger/page';
import { ExceptionsPage } from '../exceptions/page';
import { OrderPage } from '../orders/order';
import { NotBilledPage } from '../orders/not-billed';
import { OrdersPage } from '../orders/page';
import { RepeatsPage } from '../repeats/page';
import { SupplierPage } from '../suppliers/account';
import { SuppliersPage } from '../suppliers/page';
import { TodayPage } from '../today/page';
import { Trouble, Waiting } from '../ui/states';
import { authApi } from '../auth/api';
import { ImportPage } from '../imports/page';
import { SettingsPage } from '../settings/page';
import { PlaceContext } from './company';
import { Shell } from './shell';

const routes = [
  { path: '/page', element: <ApartPage /> },
  {
    path: '/',
    element: <Shell />,
    children: [
      { index: true, element: <TodayPage /> },
      { path: 'arrivals', element: <ArrivalsPage /> },
      { path: 'arrivals/:id/pages', element: <PagesPage /> },
      { path: 'bills', element: <BillsPage /> },
      { path: 'bills/repeating', element: <RepeatsPage /> },
      { path: 'bills/alike', element: <AlikePage /> },
      { path: 'bills/rules', element: <RulesPage /> },
      { path: 'bills/:id', element: <DeskPage /> },
      { path: 'approvals', element: <ApprovalsPage /> },
      { path: 'ledger', element: <LedgerPage /> },
      { path: 'ledger/tax', element: <TaxPage /> },
      { path: 'ledger/:id', element: <EntryPage /> },
      { path: 'exceptions', element: <ExceptionsPage /> },
      { path: 'orders', element: <OrdersPage /> },
      { path: 'orders/not-billed', element: <NotBilledPage /> },
      { path: 'orders/:id', element: <OrderPage /> },
      { path: 'suppliers', element: <SuppliersPage /> },
      { path: 'suppliers/:id', element: <SupplierPage /> },
      { path: 'imports/:list', element: <ImportPage /> },
      { path: 'imports/:list/:id', element: <ImportPage /> },
      { path: 'you', element: <YouPage /> },
      { path: 'settings', element: <SettingsPage /> },
      { path: 'settings/:area', element: <SettingsPage /> },
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
