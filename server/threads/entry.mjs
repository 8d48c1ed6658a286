// Worker threads start from plain JavaScript and load the TypeScript file that they are given.
import { workerData } from 'node:worker_threads';
import { register } from 'tsx/esm/api';

register();
await import(workerData.file);
