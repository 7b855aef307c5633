import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { createServer } from 'vite';
import { freePort } from './mariadb/ports.ts';
import { openProjectDatabase } from './mariadb/projectDatabase.ts';
import { ROOT } from './root.ts';
import { runCommand, tell } from './sentence.ts';

/** `npm run dev`: the interface with hot reload, the server restarted on every change. */
await runCommand(async () => {
  const database = await openProjectDatabase();
  const port = await freePort();
  const server = spawn(
    process.execPath,
    [join(ROOT, 'node_modules/tsx/dist/cli.mjs'), 'watch', join(ROOT, 'server/src/main.ts')],
    {
      cwd: ROOT,
      stdio: ['ignore', 2, 2],
      env: { ...process.env, DATABASE_URL: database.url, PORT: String(port), HOST: '127.0.0.1' },
    },
  );
  process.env.CADENZA_API = `http://127.0.0.1:${port}`;
  const vite = await createServer({
    configFile: join(ROOT, 'vite.config.ts'),
    server: { port: Number(process.env.PORT ?? 4180), host: process.env.HOST ?? '127.0.0.1' },
  });
  await vite.listen();
  tell(`\nCadenza with hot reload:  ${vite.resolvedUrls?.local[0] ?? ''}`);
  const stop = async () => {
    server.kill('SIGTERM');
    await vite.close();
    await database.stop();
    process.exit(0);
  };
  process.on('SIGINT', () => void stop());
  process.on('SIGTERM', () => void stop());
});
