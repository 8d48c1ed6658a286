import type { SetUp } from '@ledgerline/contract';
import { api, sentenceOf } from '../app/api';

/** The first screen of an empty Ledgerline. */
export function SetUpPage() {
  const [setUp, { error, isLoading }] = api.useSetUpMutation();
  const field = (name: keyof SetUp, label: string, help: string, type = 'text') => (
    <label className="block">
      {label}
      <input name={name} type={type} required minLength={name === 'password' ? 10 : 2} className="input mt-1 w-full" />
      <span className="text-[13px] quiet">{help}</span>
    </label>
  );
  return (
    <main className="mx-auto max-w-md px-6 py-10">
      <h1 className="text-2xl font-semibold text-primary">Set up Ledgerline</h1>
      <p className="mb-4 quiet">A small chart of accounts and the country’s tax codes are made for you.</p>
      <form
        className="space-y-3"
        onSubmit={(e) => {
          e.preventDefault();
          void setUp(Object.fromEntries(new FormData(e.currentTarget)) as unknown as SetUp);
        }}
      >
        {field('organisation', 'Organisation', 'The whole: one or more companies.')}
        {field('company', 'First company', 'As suppliers write it on their invoices.')}
        <label className="block">
          Country
          <select name="country" className="select mt-1 w-full">
            <option value="GB">United Kingdom (GBP)</option>
            <option value="FR">France (EUR)</option>
            <option value="NL">Netherlands (EUR)</option>
          </select>
        </label>
        {field('name', 'Your name', 'You become the administrator.')}
        {field('email', 'Your mail address', 'You sign in with it.', 'email')}
        {field('password', 'Password', 'Ten characters or more.', 'password')}
        {error && (
          <p role="alert" className="text-error">
            {sentenceOf(error)}
          </p>
        )}
        <button className="btn btn-primary w-full" disabled={isLoading}>
          Begin
        </button>
      </form>
    </main>
  );
}
