import { createSocket } from 'node:dgram';
import { networkInterfaces } from 'node:os';
import { artNetPort, artPoll, readArtPollReply, type ArtNetNode } from '../core/wall/pixels/art-net';

/** Milliseconds that answers are waited for: nodes answer within three seconds, most at once (Art-Net 4, ArtPoll). */
const waitMs = 3000;
const mostNodes = 1000;

/** A fault that is told to who asked. */
export class DiscoveryError extends Error {
  override name = 'DiscoveryError';
}

/** Broadcast addresses of all networks that this machine is in. */
function broadcasts(): string[] {
  return Object.values(networkInterfaces()).flatMap((list) =>
    (list ?? []).flatMap(({ family, internal, address, netmask }) => {
      if (family !== 'IPv4' || internal) return [];
      const mask = netmask.split('.').map(Number);
      return [
        address
          .split('.')
          .map((part, k) => (Number(part) & mask[k]) | (~mask[k] & 255))
          .join('.'),
      ];
    }),
  );
}

/**
 * Asks all networks of this machine, and these addresses, for Art-Net nodes, and gives those that answered. Answers come to the port of
 * Art-Net: it has to be free, or shared. Throws DiscoveryError.
 */
export function discover(addresses: readonly string[], forMs = waitMs): Promise<ArtNetNode[]> {
  return new Promise((resolve, reject) => {
    const found = new Map<string, ArtNetNode>();
    const socket = createSocket({ type: 'udp4', reuseAddr: true });
    socket.on('error', (error: NodeJS.ErrnoException) => {
      socket.close();
      reject(
        new DiscoveryError(
          error.code === 'EADDRINUSE'
            ? `Another program has the port of Art-Net (${artNetPort}) for itself. Close it and look again.`
            : `The network can't be asked (${error.message}).`,
        ),
      );
    });
    socket.on('message', (bytes, { address }) => {
      const node = readArtPollReply(bytes);
      // Where an answer came from is where packets reach its node; what it says of itself may be another network.
      if (node && found.size < mostNodes)
        found.set(`${address} ${node.universes.join()}`, { ...node, address });
    });
    socket.bind(artNetPort, () => {
      socket.setBroadcast(true);
      const poll = artPoll();
      // A network that is away is no reason to ask no other.
      for (const address of new Set([...broadcasts(), ...addresses]))
        socket.send(poll, artNetPort, address, () => undefined);
      setTimeout(() => {
        socket.close();
        resolve(
          [...found.values()].sort((a, b) => a.address.localeCompare(b.address, 'en', { numeric: true })),
        );
      }, forMs);
    });
  });
}
