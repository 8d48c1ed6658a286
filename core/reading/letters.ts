// Said once, and made once: a pattern with letters of all scripts is dear to make, and these are asked of every word.
const letter = /\p{L}/u,
  two = /\p{L}{2}/u,
  three = /\p{L}{3}/u,
  small = /^\p{Ll}/u;

/** Whether a text has a letter, of whatever script. */
export const hasLetter = (text: string): boolean => letter.test(text);
/** Whether two letters stand together in it: more than a code's. */
export const hasLetters = (text: string): boolean => two.test(text);
/** Whether three do: a word. */
export const hasWord = (text: string): boolean => three.test(text);
/** Whether it begins with a small letter. */
export const beginsSmall = (text: string): boolean => small.test(text);
