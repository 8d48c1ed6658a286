import { ProcessPool } from '../processes/pool.ts';
import type { Doing, Done } from './does.ts';

// A server with a process that hangs, to be killed by a test; prints the process's id.
const pool = new ProcessPool<Doing, Done>(new URL('./does.ts', import.meta.url), 1, { seconds: 60, megabytes: 300 });
const result = await pool.ask(() => ({ do: 'who' }));
if ('answer' in result && 'pid' in result.answer) console.log(`process ${result.answer.pid}`);
void pool.ask(() => ({ do: 'hang' }));
