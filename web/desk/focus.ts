/** Puts the cursor into the field of a path. */
export const focusField = (path: string): void =>
  document.querySelector<HTMLElement>(`[data-field="${CSS.escape(path)}"] :is(input, select)`)?.focus();

/** The field after the one that an element stands in, in the order of the page. */
export function nextField(from: Element): void {
  const all = [...document.querySelectorAll<HTMLElement>('[data-field] :is(input, select):not([disabled])')];
  all[all.indexOf(from as HTMLElement) + 1]?.focus();
}
