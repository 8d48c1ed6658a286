let reach: (path: string) => boolean = () => false;
/** The grid shows and takes its cells by itself: only the one in hand has a field. Gives what ends that. */
export function onReach(take: (path: string) => boolean): () => void {
  reach = take;
  return () => {
    if (reach === take) reach = () => false;
  };
}

/** Puts the cursor into the field of a path. */
export function focusField(path: string): void {
  if (reach(path)) return;
  document.querySelector<HTMLElement>(`[data-field="${CSS.escape(path)}"] :is(input, select)`)?.focus();
}

/** The field after the one that an element stands in, in the order of the page; the grid is one stop. */
export function nextField(from: Element): void {
  const all = [...document.querySelectorAll<HTMLElement>('[data-field] :is(input, select):not([disabled]), [role=gridcell][tabindex="0"]')];
  all[all.indexOf(from as HTMLElement) + 1]?.focus();
}
