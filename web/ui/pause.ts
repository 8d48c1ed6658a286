/** Says what was typed once typing pauses for `ms`, or at once when asked; each text once, nothing after it was dropped. */
export function afterPause(say: (text: string) => unknown, ms: number) {
  let timer: ReturnType<typeof setTimeout> | undefined;
  let waiting: string | null = null;
  const drop = () => {
    clearTimeout(timer);
    waiting = null;
  };
  const now = () => {
    const text = waiting;
    drop();
    if (text !== null) say(text);
  };
  return {
    typed(text: string) {
      clearTimeout(timer);
      waiting = text;
      timer = setTimeout(now, ms);
    },
    now,
    drop,
    /** Whether something is typed and not yet said. */
    pending: () => waiting !== null,
  };
}
