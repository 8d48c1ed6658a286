import type { ReactNode } from 'react';
import { NavLink, useParams } from 'react-router';
import { usePlace } from '../app/company';
import { setupApi } from '../setup/api';
import { GuideArea } from '../setup/guide';
import { Trouble } from '../ui/states';
import { AccountsArea } from './accounts';
import { BudgetsArea } from './budgets';
import { ChecksArea } from './checks';
import { CompanyArea } from './company';
import { CostCentresArea } from './cost-centres';
import { CombinationsArea } from './combinations';
import { DimensionsArea } from './dimensions';
import { DistributionsArea } from './distributions';
import { EventsArea } from './events';
import { ItemsArea } from './items';
import { MatchingArea } from './matching';
import { PeopleArea } from './people';
import { RatesArea } from './rates';
import { TaxCodesArea } from './tax-codes';
import { TermsArea } from './terms';

const areas: [path: string, label: string, area: () => ReactNode][] = [
  ['first-steps', 'First steps', GuideArea],
  ['company', 'Company', CompanyArea],
  ['people', 'People', PeopleArea],
  ['accounts', 'Accounts', AccountsArea],
  ['cost-centres', 'Cost centres', CostCentresArea],
  ['dimensions', 'Dimensions', DimensionsArea],
  ['combinations', 'What goes together', CombinationsArea],
  ['distribution-keys', 'Distribution keys', DistributionsArea],
  ['items', 'Items', ItemsArea],
  ['budgets', 'Budgets', BudgetsArea],
  ['tax-codes', 'Tax codes', TaxCodesArea],
  ['terms', 'Payment terms', TermsArea],
  ['rates', 'Exchange rates', RatesArea],
  ['matching', 'Orders and bills', MatchingArea],
  ['checks', 'Checks', ChecksArea],
  ['events', 'Event log', EventsArea],
];

/** Settings: one page an area. */
export function SettingsPage() {
  const { area = 'company' } = useParams();
  const { company, can } = usePlace();
  const { currentData: guide } = setupApi.useGuideQuery({ company: company.id }, { skip: !can('settings:see') });
  // Once all is there, the first steps are only found by who looks for them.
  const shown = areas.filter(([path]) => path !== 'first-steps' || path === area || guide?.over === false);
  const Area = areas.find(([path]) => path === area)?.[2];
  return (
    <div className="flex h-full max-md:flex-col">
      <nav
        aria-label="Settings"
        className="flex w-40 shrink-0 flex-col gap-0.5 border-r hair px-2 py-3 max-md:w-full max-md:flex-row max-md:overflow-x-auto max-md:border-r-0 max-md:border-b"
      >
        {shown.map(([path, label]) => (
          <NavLink
            key={path}
            to={`/settings/${path}`}
            className={`rounded px-2 py-1 text-[14px] whitespace-nowrap ${path === area ? 'bg-primary text-primary-content' : 'hover:bg-base-200'}`}
          >
            {label}
          </NavLink>
        ))}
      </nav>
      <div className="flex min-h-0 min-w-0 grow flex-col">{Area ? <Area /> : <Trouble sentence="This page is not here." />}</div>
    </div>
  );
}
