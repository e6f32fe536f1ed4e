// Serves the demo and starts it anew with each change of a Go file or a schema; the
// interface comes from Vite and reloads itself. `make dev` runs it.
import { spawn, spawnSync } from 'node:child_process';
import { mkdtempSync, watch } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

const data = mkdtempSync(join(tmpdir(), 'yokeswap-dev-'));
const binary = join(data, 'yokeswap');
const rooms = ['cmd', 'core', 'demo', 'docs', 'format', 'internal', 'msp', 'sim', 'store', 'web'];
let program = null;

function start() {
  const built = spawnSync('go', ['build', '-o', binary, './cmd/yokeswap'], { stdio: 'inherit' });
  if (built.status !== 0) return console.log('== it does not build: what ran before goes on');
  program?.kill();
  program = spawn(binary, ['demo', '--data', data], { stdio: 'inherit' });
}

let due = null;
for (const room of rooms) {
  watch(room, { recursive: true }, (_, file) => {
    if (!/\.(go|json)$/.test(file ?? '')) return;
    clearTimeout(due);
    due = setTimeout(start, 200);
  });
}
start();
const vite = spawn('npx', ['vite', '--config', 'ui/vite.config.ts', '--port', '5180', '--host', '127.0.0.1'], {
  stdio: 'inherit',
});
const end = () => {
  program?.kill();
  vite.kill();
  process.exit(0);
};
process.on('SIGINT', end);
process.on('SIGTERM', end);
