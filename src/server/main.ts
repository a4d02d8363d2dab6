import { homedir } from 'node:os';
import path from 'node:path';
import { parseArgs } from 'node:util';
import { listen, makeApp } from './server';

const wanted = Number(process.env.PYRVEL_PORT ?? 4170);
const host = process.env.PYRVEL_HOST ?? '127.0.0.1';
// OSC comes from the network only if that is asked for, apart from the app.
const app = makeApp({
  host,
  oscHost: process.env.PYRVEL_OSC_HOST ?? '127.0.0.1',
  redis: process.env.PYRVEL_REDIS,
  // Reached by others only once the network is opened in the app.
  machines: {
    folder: process.env.PYRVEL_DATA ?? path.join(homedir(), '.pyrvel'),
    ...(process.env.PYRVEL_NETWORK_PORT && { port: Number(process.env.PYRVEL_NETWORK_PORT) }),
  },
});

try {
  const { address } = await listen(app, wanted, host).catch((error: NodeJS.ErrnoException) => {
    // Another Pyrvel or program has the port: any free one does.
    if (error.code === 'EADDRINUSE' && process.env.PYRVEL_PORT === undefined) return listen(app, 0, host);
    throw error;
  });
  const { values } = parseArgs({ options: { players: { type: 'string' } }, strict: false });
  for (let k = 1; k <= Number(values.players ?? 0); k++)
    console.log(`A window that shows a screen of the wall: ${address}/player?name=Player%20${k}`);
  console.log(`\nPyrvel is ready with the demo show Night Apiary: ${address}\n`);
} catch (error) {
  console.error(`Pyrvel could not start: ${(error as Error).message}`);
  process.exit(1);
}
