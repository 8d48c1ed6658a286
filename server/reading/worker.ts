import { serveThread } from '../threads/serve.ts';
import { readAsked } from './readfile.ts';
import type { Asked, ReadResult, Wanting } from './result.ts';

serveThread<Asked, ReadResult | Wanting>(readAsked);
