import { useState } from 'react';
import type { Session } from '@ledgerline/contract';
import { problemOf, sentenceOf } from '../app/api';
import { authApi } from './api';

export function SignInPage({ session }: { session: Session }) {
  const [signIn, { error, isLoading }] = authApi.useSignInMutation();
  const [demo, { error: demoError }] = authApi.useDemoSignInMutation();
  /** The password was right, and the authenticator's digits are asked for. */
  const [asksCode, askCode] = useState(false);
  return (
    <main className="mx-auto flex h-full max-w-3xl items-center gap-12 px-6">
      <form
        className="w-72 space-y-3"
        onSubmit={(e) => {
          e.preventDefault();
          const d = new FormData(e.currentTarget);
          const code = d.get('code');
          signIn({ email: String(d.get('email')), password: String(d.get('password')), ...(code ? { code: String(code) } : {}) })
            .unwrap()
            .catch((refused: unknown) => askCode(problemOf(refused).data?.kind === 'code'));
        }}
      >
        <h1 className="text-2xl font-semibold text-primary">Ledgerline</h1>
        <p className="quiet">{session.organisation}</p>
        <label className="block">
          Mail address
          <input name="email" type="email" autoComplete="username" required className="input mt-1 w-full" />
        </label>
        <label className="block">
          Password
          <input name="password" type="password" autoComplete="current-password" required className="input mt-1 w-full" />
        </label>
        {asksCode && (
          <label className="block">
            Digits of your authenticator
            <input
              name="code"
              inputMode="numeric"
              autoComplete="one-time-code"
              required
              autoFocus
              maxLength={8}
              className="input mt-1 w-full tracking-widest"
            />
          </label>
        )}
        {(error || demoError) && (
          <p role="alert" className="text-error">
            {sentenceOf(error ?? demoError)}
          </p>
        )}
        <button className="btn btn-primary w-full" disabled={isLoading}>
          Sign in
        </button>
      </form>
      {session.demo.length > 0 && (
        <section aria-label="Demo" className="grow border-l-2 border-double hair pl-10">
          <h2 className="mb-2 font-semibold">Or come in as</h2>
          <ul>
            {session.demo.map((p) => (
              <li key={p.id} className="border-t hair">
                <button className="w-full px-2 py-2 text-left hover:bg-base-200" onClick={() => void demo({ personId: p.id })}>
                  <span className="font-semibold text-primary">{p.name}</span>
                  <span className="block text-[13px] quiet">{p.title}</span>
                </button>
              </li>
            ))}
          </ul>
        </section>
      )}
    </main>
  );
}
