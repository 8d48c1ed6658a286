import {
  Changed,
  CombinationEffect,
  CombinationList,
  CombinationQuery,
  DimensionList,
  DimensionMade,
  DimensionValueList,
  DimensionValuesQuery,
} from '@ledgerline/contract';
import { decodeCursor, nextOf } from '../http/cursor.ts';
import type { Api } from '../http/define.ts';
import { changeCombination, listCombinations, newCombination } from './combinations.ts';
import { today } from '../services.ts';
import { effectOf } from './effect.ts';
import { changeDimension, changeDimensionValue, newDimension, newDimensionValue } from './service.ts';
import { listDimensions, listValues } from './store.ts';

export function dimensionRoutes(api: Api): void {
  const { db } = api.services.database;
  api.query(
    { path: '/dimensions', access: 'bills:see', summary: 'The company’s own dimensions', answer: DimensionList },
    async ({ caller }) => ({ dimensions: await listDimensions(db, caller.company.id) }),
  );
  api.command({ method: 'post', path: '/dimensions', summary: 'A new dimension', answer: DimensionMade, tried: true }, newDimension);
  api.command(
    { method: 'put', path: '/dimensions/:field', summary: 'Rename or close a dimension', answer: DimensionMade, tried: true },
    changeDimension,
  );
  api.query(
    {
      path: '/dimension-values',
      access: 'settings:see',
      summary: 'The values of a dimension, by code',
      query: DimensionValuesQuery,
      answer: DimensionValueList,
    },
    async ({ caller, query }) => {
      const limit = query.limit ?? 100;
      const values = await listValues(db, caller.company.id, query.field, query.q ?? '', decodeCursor(query.cursor, 'text'), limit);
      return { values, next: nextOf(values, limit, (last) => [last.code, last.id]) };
    },
  );
  api.command(
    { method: 'post', path: '/dimension-values', summary: 'A new value of a dimension', answer: Changed, tried: true },
    newDimensionValue,
  );
  api.command(
    { method: 'put', path: '/dimension-values/:id', summary: 'Change or close a value of a dimension', answer: Changed, tried: true },
    changeDimensionValue,
  );
  api.query(
    { path: '/combinations', access: 'settings:see', summary: 'Rules on which codings go together', answer: CombinationList },
    async ({ caller }) => ({ combinations: await listCombinations(db, caller.company.id) }),
  );
  api.query(
    {
      path: '/combinations/effect',
      access: 'settings:see',
      summary: 'What a rule would do, before it is kept',
      query: CombinationQuery,
      answer: CombinationEffect,
    },
    async ({ caller, query, services }) => effectOf(db, caller.company.id, query, today(services)),
  );
  api.command({ method: 'post', path: '/combinations', summary: 'A new rule on what goes together', answer: Changed }, newCombination);
  api.command(
    { method: 'put', path: '/combinations/:id', summary: 'Change or close a rule on what goes together', answer: Changed },
    changeCombination,
  );
}
