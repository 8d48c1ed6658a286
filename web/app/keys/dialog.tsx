import { useState } from 'react';
import { Dialog } from '../../ui/dialog';
import { keysHere } from './registry';

const shown = (key: string): string =>
  key
    .replace('ArrowDown', '↓')
    .replace('ArrowUp', '↑')
    .replace('ArrowLeft', '←')
    .replace('ArrowRight', '→')
    .replace('Escape', 'Esc')
    .replace('Enter', '⏎');

/** The keys of this place, as the registry has them. */
export function KeysDialog({ close }: { close(): void }) {
  const [places] = useState(() => keysHere().filter((p) => p.bindings.length > 0));
  return (
    <Dialog title="Keys" close={close} wide>
      <div tabIndex={0} data-first className="max-h-[70vh] gap-x-8 overflow-auto text-[14px] md:columns-2">
        {places.map((place) => (
          <section key={place.name} className="mb-3">
            <h3 className="mb-1 text-[13px] quiet">{place.name}</h3>
            <dl className="grid grid-cols-[120px_1fr] gap-x-3 gap-y-0.5">
              {place.bindings.map((b) => (
                <div key={b.key} className="contents">
                  <dt>
                    <kbd className="key">{shown(b.key)}</kbd>
                  </dt>
                  <dd>{b.what}</dd>
                </div>
              ))}
            </dl>
          </section>
        ))}
      </div>
    </Dialog>
  );
}
