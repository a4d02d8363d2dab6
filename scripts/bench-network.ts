import { fork, spawn, type ChildProcess } from 'node:child_process';
import { createSocket } from 'node:dgram';
import { once } from 'node:events';
import { readFileSync } from 'node:fs';
import path from 'node:path';
import { WebSocket } from 'ws';
import { artDmx, artNetPort } from '../src/core/wall/pixels/art-net';
import { writeDatagrams, type Datagram } from '../src/core/wall/pixels/datagrams';

/** What a big wall sends: universes over nodes, frames a second, for so many seconds. */
const load = { universes: 600, nodes: 20, framesPerSecond: 44, seconds: 60 };
const here = import.meta.filename;
/** Ticks of the processor's clock a second, as Linux counts them for a process. */
const ticksPerSecond = 100;

const addressOf = (universe: number): string => `127.0.1.${1 + (universe % load.nodes)}`;

/** Counts packets for all nodes in a process of its own, and tells the count when it is asked. */
async function countPackets(): Promise<void> {
  let packets = 0;
  for (let k = 0; k < load.nodes; k++) {
    const socket = createSocket({ type: 'udp4', recvBufferSize: 2 ** 22 });
    socket.on('message', () => packets++);
    socket.bind(artNetPort, addressOf(k));
    await once(socket, 'listening');
  }
  process.on('message', () => process.send!(packets));
  process.send!(-1);
}

/** Seconds of the processor that a process has had (proc(5), stat). */
function cpuSeconds({ pid }: ChildProcess): number {
  const fields = readFileSync(`/proc/${pid}/stat`, 'utf8').split(') ')[1].split(' ');
  return (Number(fields[11]) + Number(fields[12])) / ticksPerSecond;
}

/** Share of a core that the server needs to send 600 universes 44 times a second, and what was lost on the way. */
export async function measureNetwork(
  tell: (name: string, value: number, about: string) => void,
): Promise<void> {
  const nodes = fork(here, ['nodes'], { execArgv: ['--import', 'tsx'] });
  await once(nodes, 'message');
  const server = spawn(process.execPath, ['--import', 'tsx', 'src/server/main.ts'], {
    cwd: path.resolve(import.meta.dirname, '..'),
    env: { ...process.env, PYRVEL_PORT: '0' },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  try {
    let said = '';
    while (!/http:\S+/.test(said)) said += String((await once(server.stdout!, 'data'))[0]);
    const address = /http:\S+/.exec(said)![0];
    const page = new WebSocket(`${address.replace('http', 'ws')}/pixels`, { origin: address });
    await once(page, 'open');
    const data = new Uint8Array(510);
    const frame = (number: number): Uint8Array =>
      writeDatagrams(
        Array.from({ length: load.universes }, (_, universe): Datagram => {
          data.fill((number + universe) % 256);
          return {
            address: addressOf(universe),
            port: artNetPort,
            bytes: artDmx(universe, 1 + (number % 255), data),
          };
        }),
      );
    const frames = Array.from({ length: 16 }, (_, k) => frame(k));
    const all = load.framesPerSecond * load.seconds;
    const cpuBefore = cpuSeconds(server);
    const start = performance.now();
    for (let k = 0; k < all; k++) {
      const wait = start + (k * 1000) / load.framesPerSecond - performance.now();
      if (wait > 0) await new Promise((resolve) => setTimeout(resolve, wait));
      page.send(frames[k % frames.length]);
    }
    while (page.bufferedAmount > 0) await new Promise((resolve) => setTimeout(resolve, 20));
    await new Promise((resolve) => setTimeout(resolve, 1000));
    const seconds = (performance.now() - start) / 1000;
    const share = (cpuSeconds(server) - cpuBefore) / seconds;
    nodes.send('count');
    const [arrived] = (await once(nodes, 'message')) as [number];
    page.close();
    const sent = all * load.universes;
    tell(
      'universes600',
      share,
      `${arrived} of ${sent} packets arrived, ${(sent / seconds).toFixed(0)} a second`,
    );
    tell('universesLost', sent - arrived, `of ${sent} packets`);
  } finally {
    server.kill();
    nodes.kill();
  }
}

if (process.argv[2] === 'nodes') await countPackets();
