import type { TermsRow } from '@ledgerline/contract';
import { usePlace } from '../app/company';
import { settingsApi } from './api';

const none: TermsRow[] = [];
/** The company's own payment terms, closed ones too: suppliers that have them keep them. */
export function useOwnTerms(): TermsRow[] {
  const { company } = usePlace();
  return settingsApi.useTermsQuery({ company: company.id }).currentData?.terms ?? none;
}

/** Offers the company's own terms in a field that takes any: by name, with what they mean beside it. */
export function OwnTerms({ id }: { id: string }) {
  return (
    <datalist id={id}>
      {useOwnTerms()
        .filter((t) => t.active)
        .map((t) => (
          <option key={t.id} value={t.name} label={`${t.code}: ${t.terms}`} />
        ))}
    </datalist>
  );
}
