import { expect, it } from 'vitest';
import { beginsSmall, hasLetter, hasLetters, hasWord } from './letters.ts';

const all = (text: string) => [hasLetter(text), hasLetters(text), hasWord(text), beginsSmall(text)];

it('letters of any script count, digits and signs do not; asked again it says the same', () => {
  for (let again = 0; again < 2; again++) {
    expect(all('1,204.50 %')).toEqual([false, false, false, false]);
    expect(all('K-104')).toEqual([true, false, false, false]);
    expect(all('4 St')).toEqual([true, true, false, false]);
    expect(all('Äpfel')).toEqual([true, true, true, false]);
    expect(all('één')).toEqual([true, true, true, true]);
    expect(all('請求書')).toEqual([true, true, true, false]);
  }
});
