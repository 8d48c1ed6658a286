import { countries, SetUp } from '@ledgerline/contract';
import { FormField, Problem, useSchemaForm } from '../ui/form';
import { authApi } from '../auth/api';
import { countryNames } from './countries';

/** The first screen of an empty Ledgerline. */
export function SetUpPage() {
  const [setUp, { isLoading }] = authApi.useSetUpMutation();
  const { form, submit, trouble } = useSchemaForm(SetUp, {
    organisation: '',
    company: '',
    country: 'GB',
    name: '',
    email: '',
    password: '',
  });
  return (
    <main className="mx-auto max-w-md px-6 py-10">
      <h1 className="text-2xl font-semibold text-primary">Set up Ledgerline</h1>
      <p className="mb-4 quiet">
        A small chart of accounts and the country’s tax codes are made for you. Once you are in, First steps leads on to the first posted
        bill.
      </p>
      <form className="space-y-3" onSubmit={submit((body) => setUp(body).unwrap())}>
        <FormField form={form} name="organisation" label="Organisation" hint="The whole: one or more companies" autoFocus />
        <FormField form={form} name="company" label="First company" hint="As suppliers write it on their invoices" />
        <FormField form={form} name="country" label="Country" options={countries.map((c) => [c, countryNames[c]])} />
        <FormField form={form} name="name" label="Your name" hint="You become the administrator" />
        <FormField form={form} name="email" label="Your mail address" hint="You sign in with it" />
        <FormField form={form} name="password" label="Password" type="password" hint="Ten characters or more" />
        <Problem sentence={trouble} />
        <button className="btn btn-primary w-full" disabled={isLoading}>
          Begin
        </button>
      </form>
    </main>
  );
}
