import { useEffect, useRef, type ReactNode } from 'react';
import { createPortal } from 'react-dom';

/** A dialog over the page: focus stays inside, Esc closes. */
export function Dialog({ title, close, wide, children }: { title: string; close(): void; wide?: boolean | 'whole'; children: ReactNode }) {
  const ref = useRef<HTMLDialogElement>(null);
  useEffect(() => {
    const before = document.activeElement as HTMLElement | null;
    ref.current?.showModal();
    // The browser would put the cursor into the first field; some dialogs begin elsewhere.
    ref.current?.querySelector<HTMLElement>('[data-first]')?.focus();
    // Where the cursor was, it comes back to, unless it has gone elsewhere meanwhile.
    return () =>
      void setTimeout(() => {
        if (document.activeElement === document.body && before?.isConnected) before.focus();
      });
  }, []);
  // At the end of the document: what the place around it sets for its own letters is not the dialog's.
  return createPortal(
    <dialog
      ref={ref}
      className="modal"
      aria-label={title}
      // Esc ends it at once: "close" comes later, and would end what the next key has opened meanwhile.
      onCancel={(e) => {
        e.preventDefault();
        close();
      }}
      onClose={close}
      onKeyDown={(e) => e.stopPropagation()}
    >
      <div className={`modal-box ${wide === 'whole' ? 'max-w-6xl' : wide ? 'max-w-3xl' : 'max-w-lg'}`}>
        <h2 className="mb-3 text-lg font-semibold">{title}</h2>
        {children}
      </div>
      <form method="dialog" className="modal-backdrop">
        <button aria-label="Close">Close</button>
      </form>
    </dialog>,
    document.body,
  );
}

/**
 * The end of a dialog: how to leave it and what it does at the right, what else there is at the left. Without an action it is only looked
 * at and closed; with one it ends a form.
 */
export function DialogEnd({
  close,
  action,
  busy,
  leave = action ? 'Cancel' : 'Close',
  children,
}: {
  close(): void;
  action?: string;
  busy?: boolean;
  leave?: string;
  children?: ReactNode;
}) {
  return (
    <div className="mt-4 flex items-center gap-2">
      {children}
      <button type="button" className={`btn ml-auto ${leave === 'Close' ? 'btn-primary' : ''}`} onClick={close}>
        {leave}
      </button>
      {action && (
        <button data-go className="btn btn-primary" disabled={busy}>
          {action}
        </button>
      )}
    </div>
  );
}

/** Asks for one sentence before something is done with it. */
export function AskNote({
  title,
  action,
  label = 'Note',
  done,
  close,
}: {
  title: string;
  action: string;
  label?: string;
  done(note: string): void;
  close(): void;
}) {
  return (
    <Dialog title={title} close={close}>
      <form
        onSubmit={(e) => {
          e.preventDefault();
          const note = String(new FormData(e.currentTarget).get('note')).trim();
          if (note) done(note);
        }}
      >
        <label className="block">
          {label}
          <input name="note" required autoFocus minLength={3} maxLength={500} className="input mt-1 w-full" />
        </label>
        <DialogEnd close={close} action={action} />
      </form>
    </Dialog>
  );
}
