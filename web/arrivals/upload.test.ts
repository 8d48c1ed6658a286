import { describe, expect, it } from 'vitest';
import { refusal, together } from './upload';

const file = (name: string) => new File(['x'], name);
const names = (...given: string[]) => together(given.map(file)).map((group) => group.map((f) => f.name));

describe('files added at once', () => {
  it('an e-invoice arrives with its page', () => expect(names('a.pdf', 'b.pdf', 'A.xml')).toEqual([['a.pdf', 'A.xml'], ['b.pdf']]));
  it('all else arrives one by one, the same name or not', () =>
    expect(names('a.pdf', 'a.png', 'c.xml')).toEqual([['a.pdf'], ['a.png'], ['c.xml']]));
  it('a refusal is told in the server’s words, or plainly where something else answered', () => {
    expect(refusal('{"title":"This file is too large."}')).toBe('This file is too large.');
    for (const other of ['<html>502 Bad Gateway</html>', '', '{}']) expect(refusal(other)).toBe('could not be added');
  });
});
