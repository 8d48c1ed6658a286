import { useLocation } from 'react-router';
import { Dialog } from '../ui/dialog';

const everywhere: [string, string][] = [
  ['Alt+1 … Alt+6', 'Go to a place'],
  ['/', 'Search'],
  ['?', 'These keys'],
  ['Esc', 'Back'],
];
const places: [RegExp, [string, string][]][] = [
  [
    /^\/arrivals\/.+/,
    [
      ['← →', 'Choose a page'],
      ['Alt+← Alt+→', 'Move the page'],
      ['S', 'Split before the page'],
      ['R', 'Turn the page'],
      ['Delete', 'Leave the page out'],
      ['Ctrl+Z', 'Undo'],
    ],
  ],
  [
    /^\/bills\/.+/,
    [
      ['Tab, Shift+Tab', 'Next field, field before'],
      ['Enter', 'Take the choice, go to the next field'],
      ['Alt+↓', 'Next field that needs a look'],
      ['Ctrl+Enter', 'Done, next bill'],
      ['Alt+S', 'Set aside'],
      ['Alt+N', 'Add a row'],
      ['Alt+Delete', 'Remove the row in hand'],
      ['Ctrl+D', 'Fill this coding down'],
      ['PageUp, PageDown', 'Turn the page'],
    ],
  ],
  [
    /^\/bills/,
    [
      ['↑ ↓', 'Choose a bill'],
      ['Enter', 'Open it'],
      ['Space', 'Mark it for posting'],
    ],
  ],
  [
    /^\/approvals/,
    [
      ['A', 'Approve'],
      ['R', 'Return with a note'],
    ],
  ],
  [
    /^\/ledger/,
    [
      ['↑ ↓', 'Choose an entry'],
      ['Enter', 'Open it'],
    ],
  ],
];

export function KeysDialog({ close }: { close(): void }) {
  const { pathname } = useLocation();
  const here = places.find(([path]) => path.test(pathname))?.[1] ?? [];
  return (
    <Dialog title="Keys" close={close}>
      <dl className="grid grid-cols-[auto_1fr] gap-x-6 gap-y-1">
        {[...here, ...everywhere].map(([key, what]) => (
          <div key={key} className="contents">
            <dt>
              <kbd className="key">{key}</kbd>
            </dt>
            <dd>{what}</dd>
          </div>
        ))}
      </dl>
    </Dialog>
  );
}
