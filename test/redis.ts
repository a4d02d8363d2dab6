import { spawn } from 'node:child_process';
import { createServer, type AddressInfo } from 'node:net';

/** A Redis of its own on a free port, in a folder of the test. */
export async function startRedis(
  folder: string,
  taken?: number,
): Promise<{ url: string; port: number; stop(): void }> {
  const port =
    taken ??
    (await new Promise<number>((resolve) => {
      const server = createServer().listen(0, '127.0.0.1', () => {
        const at = (server.address() as AddressInfo).port;
        server.close(() => resolve(at));
      });
    }));
  const own = ['--port', String(port), '--bind', '127.0.0.1', '--save', '', '--dir', folder];
  const redis = spawn('redis-server', own, { stdio: ['ignore', 'pipe', 'ignore'] });
  await new Promise<void>((resolve) => {
    redis.stdout.on('data', (data: Buffer) => {
      if (data.toString().includes('Ready to accept connections')) resolve();
    });
  });
  return { url: `redis://127.0.0.1:${port}`, port, stop: () => void redis.kill() };
}
