import { useState } from 'react';
import { toast } from 'sonner';
import { ChangePassword, Confirm, ConfirmFactor, type SecondFactor, type SessionRow } from '@ledgerline/contract';
import { sentenceOf } from '../app/api';
import { usePlace } from '../app/company';
import { FormField } from '../ui/form';
import { FormDialog } from '../ui/form-dialog';
import { showTime } from '../ui/format';
import { Head } from '../ui/states';
import { authApi } from './api';
import { browserOf } from './browser';

/** One's own sign-in: password, second factor, and where one is signed in. */
export function YouPage() {
  const { me } = usePlace();
  const { currentData } = authApi.useSessionsQuery(undefined, { refetchOnMountOrArgChange: true });
  const [asks, ask] = useState<'password' | 'factor' | 'no-factor' | null>(null);
  const close = () => ask(null);
  return (
    <div className="flex h-full flex-col overflow-y-auto">
      <Head title={me.name} detail={[me.title, me.email].filter(Boolean).join(' · ')} />
      <div className="max-w-3xl space-y-8 px-6 py-5">
        <section aria-label="Sign-in">
          <h2 className="mb-2 font-semibold">Sign-in</h2>
          <dl className="border-t hair text-[14px]">
            <Row what="Password" says="Ten characters or more">
              <button className="btn btn-sm" onClick={() => ask('password')}>
                Change password
              </button>
            </Row>
            <Row
              what="Second factor"
              says={
                currentData?.secondFactor
                  ? 'On: the digits of your authenticator are asked for'
                  : 'Off: your password alone opens Ledgerline'
              }
            >
              {currentData && (
                <button className="btn btn-sm" onClick={() => ask(currentData.secondFactor ? 'no-factor' : 'factor')}>
                  {currentData.secondFactor ? 'Take it off' : 'Set it up'}
                </button>
              )}
            </Row>
          </dl>
        </section>
        <Sessions rows={currentData?.sessions ?? []} />
      </div>
      {asks === 'password' && <PasswordForm close={close} />}
      {asks === 'factor' && <FactorForm close={close} />}
      {asks === 'no-factor' && <NoFactorForm close={close} />}
    </div>
  );
}

const Row = ({ what, says, children }: { what: string; says: string; children: React.ReactNode }) => (
  <div className="flex min-h-12 items-center gap-4 border-b hair py-1">
    <dt className="w-36 font-medium">{what}</dt>
    <dd className="grow quiet">{says}</dd>
    {children}
  </div>
);

/** Where the person is signed in; each can be ended, and all but this one at once. */
function Sessions({ rows }: { rows: SessionRow[] }) {
  const [endOne] = authApi.useEndOneMutation();
  const [endElsewhere] = authApi.useEndElsewhereMutation();
  const failed = (error: unknown) => void toast.error(sentenceOf(error));
  return (
    <section aria-label="Where you are signed in">
      <div className="mb-2 flex items-end">
        <h2 className="grow font-semibold">Where you are signed in</h2>
        {rows.length > 1 && (
          <button
            className="btn btn-sm"
            onClick={() =>
              void endElsewhere()
                .unwrap()
                .then(() => toast.success('You are signed in here only.'), failed)
            }
          >
            Sign out everywhere else
          </button>
        )}
      </div>
      <ul className="border-t hair text-[14px]">
        {rows.map((s) => (
          <li key={s.id} className="flex min-h-12 items-center gap-4 border-b hair py-1">
            <span className="w-36 font-medium" title={s.agent ?? undefined}>
              {browserOf(s.agent)}
            </span>
            <span className="grow quiet">
              since {showTime(s.startedAt)}, last used {showTime(s.seenAt)}
              {s.address && ` · from ${s.address}`}
            </span>
            {s.here ? (
              <span className="quiet">here</span>
            ) : (
              <button className="btn btn-sm" onClick={() => void endOne({ id: s.id }).unwrap().catch(failed)}>
                Sign out
              </button>
            )}
          </li>
        ))}
      </ul>
      <p className="mt-2 text-[13px] quiet">A session ends by itself after two hours in which you did nothing, and after fourteen hours.</p>
    </section>
  );
}

/** What was done, in a message, and the dialog is gone. */
const told = (sentence: string, close: () => void) => {
  toast.success(sentence);
  close();
};

function PasswordForm({ close }: { close(): void }) {
  const [change] = authApi.useChangePasswordMutation();
  return (
    <FormDialog
      title="Change password"
      schema={ChangePassword}
      values={{ password: '', next: '' }}
      action="Change password"
      close={close}
      send={async (body) => {
        await change(body).unwrap();
        told('Your password is changed. Everywhere else you are signed out.', close);
      }}
    >
      {(form) => (
        <>
          <FormField form={form} name="password" label="The password that you have" type="password" autoFocus />
          <FormField form={form} name="next" label="New password" type="password" hint="Ten characters or more" />
        </>
      )}
    </FormDialog>
  );
}

/** In two steps: the password, then the code of an authenticator that was set up with the secret. */
function FactorForm({ close }: { close(): void }) {
  const [begin] = authApi.useBeginFactorMutation();
  const [confirm] = authApi.useConfirmFactorMutation();
  const [made, setMade] = useState<{ password: string; factor: SecondFactor } | null>(null);
  if (!made)
    return (
      <FormDialog
        key="password"
        title="Set up a second factor"
        schema={Confirm}
        values={{ password: '' }}
        action="Go on"
        close={close}
        send={async ({ password }) => setMade({ password, factor: await begin({ password }).unwrap() })}
      >
        {(form) => (
          <>
            <p>After your password, Ledgerline will ask for six digits from an authenticator on your phone.</p>
            <FormField form={form} name="password" label="Your password" type="password" autoFocus />
          </>
        )}
      </FormDialog>
    );
  return (
    <FormDialog
      key="code"
      title="Set up a second factor"
      schema={ConfirmFactor}
      values={{ password: made.password, secret: made.factor.secret, code: '' }}
      action="Turn it on"
      close={close}
      send={async (body) => {
        await confirm(body).unwrap();
        told('The second factor is on.', close);
      }}
    >
      {(form) => (
        <div className="flex gap-5">
          <img src={made.factor.picture} alt="Code to photograph with the authenticator" width={170} height={170} />
          <div className="space-y-3">
            <p>Photograph this with your authenticator, or type the secret into it:</p>
            <code className="block text-[13px] break-all select-all">{made.factor.secret.replace(/(.{4})/g, '$1 ').trim()}</code>
            <FormField form={form} name="code" label="The six digits that it shows" autoFocus />
          </div>
        </div>
      )}
    </FormDialog>
  );
}

function NoFactorForm({ close }: { close(): void }) {
  const [drop] = authApi.useDropFactorMutation();
  return (
    <FormDialog
      title="Take off the second factor"
      schema={Confirm}
      values={{ password: '' }}
      action="Take it off"
      close={close}
      send={async (body) => {
        await drop(body).unwrap();
        told('The second factor is off.', close);
      }}
    >
      {(form) => <FormField form={form} name="password" label="Your password" type="password" autoFocus />}
    </FormDialog>
  );
}
