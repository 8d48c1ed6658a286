/** After this long without a key or a touch, what a screen fetches by itself does not keep a session alive, in milliseconds. */
const idleAfter = 3 * 60_000;

let last = Date.now();
for (const sign of ['keydown', 'pointerdown', 'wheel', 'touchstart'])
  globalThis.addEventListener?.(sign, () => void (last = Date.now()), { capture: true, passive: true });

export const isIdle = (): boolean => Date.now() - last > idleAfter;
