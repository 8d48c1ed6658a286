import { expect, it } from 'vitest';
import { wordsFrom } from './from-row';

it.each([
  ['Standing charge, June', 'Standing charge'],
  ['Electricity 1 Oct to 31 Oct', 'Electricity'],
  ['Line rental - October', 'Line rental'],
  ['Hire of scissor lift for the north glasshouse', 'Hire of scissor lift'],
  ['12 m cable', '12 m cable'],
  ['Site rent\nfourth quarter', 'Site rent'],
  ['', ''],
])('a rule made of “%s” begins with “%s”', (description, words) => expect(wordsFrom(description)).toBe(words));
