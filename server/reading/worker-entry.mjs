// Worker threads start from plain JavaScript and load the TypeScript behind it.
import { register } from 'tsx/esm/api';

register();
await import('./worker.ts');
