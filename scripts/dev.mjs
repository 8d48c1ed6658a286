// npm run dev: the server, and the web application with hot reload.
import { spawn } from 'node:child_process';
import { root } from './prepare.mjs';

const children = [
  spawn(process.execPath, ['scripts/start.mjs'], { cwd: root, stdio: 'inherit' }),
  spawn('npx', ['vite', 'web', '--config', 'web/vite.config.ts'], { cwd: root, stdio: 'inherit' }),
];
process.on('SIGINT', () => undefined);
for (const child of children)
  child.once('exit', () => {
    for (const other of children) other.kill('SIGINT');
  });
