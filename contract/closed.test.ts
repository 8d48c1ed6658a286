import { Type } from '@sinclair/typebox';
import { Value } from '@sinclair/typebox/value';
import { describe, expect, it } from 'vitest';
import { closed } from './closed.ts';

const deep = closed(
  Type.Object({
    a: Type.Array(Type.Object({ b: Type.Union([Type.Object({ c: Type.Integer() }), Type.Null()]) })),
    r: Type.Record(Type.String({ pattern: '^[a-z]+$' }), Type.Object({ d: Type.Boolean() })),
  }),
);
const good = { a: [{ b: { c: 1 } }, { b: null }], r: { x: { d: true } } };

describe('a closed schema', () => {
  it('takes what it names', () => expect(Value.Check(deep, good)).toBe(true));
  it.each([
    ['at the top', { ...good, stage: 'approved' }],
    ['in a list', { ...good, a: [{ b: null, billId: 'x' }] }],
    ['behind a choice', { ...good, a: [{ b: { c: 1, e: 2 } }] }],
    ['in a record', { ...good, r: { x: { d: true, e: 1 } } }],
    ['a key that does not fit', { ...good, r: { X1: { d: true } } }],
  ])('refuses more, %s', (_, value) => expect(Value.Check(deep, value)).toBe(false));
  it('leaves the schema it was made of as it is', () => {
    const open = Type.Object({ a: Type.Object({}) });
    closed(open);
    expect(Value.Check(open, { a: { more: 1 }, other: 2 })).toBe(true);
  });
  it('cannot be made of what could not be closed', () => {
    expect(() => closed(Type.Object({ a: Type.Intersect([Type.Object({}), Type.Object({})]) }))).toThrow('cannot be closed');
    expect(() => closed(Type.Object({ a: Type.Unknown() }))).toThrow('cannot be closed');
  });
});
