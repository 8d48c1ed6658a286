import { serveProcess } from '../processes/serve.ts';
import { readAsked } from './readfile.ts';
import type { Asked, ReadResult, Wanting } from './result.ts';

serveProcess<Asked, ReadResult | Wanting>(readAsked);
