// pdf.js brings fillers for older engines, which also put slow copies over two functions that are used everywhere. Imported before
// pdf.js, this remembers the engine's own.
const { push } = Array.prototype;
const { parse } = JSON;

/** Puts the engine's own `Array.prototype.push` and `JSON.parse` back. What was only added stays. */
export function natives() {
  Object.defineProperty(Array.prototype, 'push', { value: push, writable: true, configurable: true });
  Object.defineProperty(JSON, 'parse', { value: parse, writable: true, configurable: true });
}
