import { useEffect, useRef } from 'react';

/** One key and what it does here. */
export interface Binding {
  /** "Ctrl+Enter", "Alt+S", "A", "ArrowDown", "?" */
  key: string;
  what: string;
  /** Left out where the element in hand does it by itself: then it is only listed. */
  run?(event: KeyboardEvent): void;
  /** Only then; else the key is left to others. */
  when?(event: KeyboardEvent): boolean;
  /** Works while a field has the cursor, too. Keys with Ctrl or Alt and function keys always do. */
  typing?: boolean;
  /** Goes on while the key is held. What decides something never does. */
  repeat?: boolean;
  /** Left out of the list of keys: another way to the same. */
  silent?: boolean;
}
interface Place {
  name: string;
  bindings: Binding[];
}

/** What listens now, the innermost last. */
const places: { current: Place }[] = [];

const named: Record<string, string> = { ' ': 'Space', Esc: 'Escape' };
/** A key press as it is written in a binding. */
export function pressed(e: Pick<KeyboardEvent, 'key' | 'ctrlKey' | 'altKey' | 'shiftKey' | 'metaKey'>): string {
  const key = named[e.key] ?? (e.key.length === 1 ? e.key.toUpperCase() : e.key);
  const letter = /^[A-Z]$/.test(key) || key.length > 1;
  return [e.ctrlKey || e.metaKey ? 'Ctrl' : '', e.altKey ? 'Alt' : '', e.shiftKey && letter ? 'Shift' : '', key].filter(Boolean).join('+');
}

const inField = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement &&
  (target.matches('textarea, select, input:not([type=checkbox], [type=radio], [type=button])') || target.isContentEditable);

type Press = Pick<KeyboardEvent, 'key' | 'ctrlKey' | 'altKey' | 'shiftKey' | 'metaKey' | 'repeat'>;
/**
 * The binding that a key press is for, the innermost place first. A plain key in a field is the field's; a held key repeats only what
 * may be repeated.
 */
export function bindingFor<E extends Press>(here: readonly Place[], e: E, typing: boolean): Binding | undefined {
  const press = pressed(e);
  const always = e.ctrlKey || e.altKey || e.metaKey || /^F\d+$/.test(e.key);
  for (let i = here.length - 1; i >= 0; i--) {
    const binding = here[i]!.bindings.find((b) => b.key === press && b.run && (b.when?.(e as unknown as KeyboardEvent) ?? true));
    if (binding && (!typing || always || binding.typing) && (!e.repeat || binding.repeat)) return binding;
  }
  return undefined;
}

function listen(e: KeyboardEvent): void {
  if (e.defaultPrevented || document.querySelector('dialog[open]')) return;
  const binding = bindingFor(
    places.map((p) => p.current),
    e,
    inField(e.target),
  );
  if (!binding) return;
  if (binding.key !== 'Escape') e.preventDefault();
  binding.run!(e);
}

/** Has keys do things as long as the component is on screen; the innermost place is asked first. */
export function useKeys(name: string, bindings: Binding[]): void {
  const place = useRef<Place>({ name, bindings });
  place.current = { name, bindings };
  useEffect(() => {
    if (places.length === 0) addEventListener('keydown', listen);
    places.push(place);
    return () => {
      places.splice(places.indexOf(place), 1);
      if (places.length === 0) removeEventListener('keydown', listen);
    };
  }, []);
}

/** The keys of this place, the innermost first. */
export const keysHere = (): { name: string; bindings: Binding[] }[] =>
  [...places].reverse().map((p) => ({ name: p.current.name, bindings: p.current.bindings.filter((b) => !b.silent) }));
