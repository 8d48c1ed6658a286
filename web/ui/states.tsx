import { CircleAlert, Leaf } from 'lucide-react';
import type { ReactNode } from 'react';

export const Waiting = () => (
  <div className="p-8 quiet" role="status">
    Loading …
  </div>
);
export const Trouble = ({ sentence }: { sentence: string }) => (
  <div className="flex gap-2 p-8" role="alert">
    <CircleAlert className="text-error" aria-hidden />
    {sentence}
  </div>
);
export const Empty = ({ children }: { children: ReactNode }) => (
  <div className="flex items-center gap-2 p-8 quiet">
    <Leaf size={18} aria-hidden />
    {children}
  </div>
);

export function Head({ title, detail, children }: { title: string; detail?: ReactNode; children?: ReactNode }) {
  return (
    <header className="flex h-[56px] shrink-0 items-center gap-4 border-b hair px-6">
      <div className="min-w-0">
        <h1 className="truncate text-lg font-semibold leading-6">{title}</h1>
        {detail && <div className="truncate text-[13px] quiet leading-4">{detail}</div>}
      </div>
      <div className="ml-auto flex items-center gap-3">{children}</div>
    </header>
  );
}
