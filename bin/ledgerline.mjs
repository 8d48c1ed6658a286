#!/usr/bin/env node
// The command line: plain JavaScript that loads the TypeScript behind it.
import { register } from 'tsx/esm/api';

register();
await import('../server/cli.ts');
