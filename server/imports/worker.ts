import { serveProcess } from '../processes/serve.ts';
import { bookOf, NoSheet, sheetOf } from './sheet.ts';
import type { SheetAnswer, SheetAsk } from './pool.ts';

serveProcess<SheetAsk, SheetAnswer>(async (asked) => {
  if ('sheet' in asked) return { book: await bookOf(asked.sheet) };
  try {
    return { sheet: await sheetOf(asked.bytes, asked.list, asked.base) };
  } catch (error) {
    return {
      wrong: error instanceof NoSheet ? error.message : 'This file cannot be opened. Save it as .xlsx or .csv again, and choose that.',
    };
  }
});
