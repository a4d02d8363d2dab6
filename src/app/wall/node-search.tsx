import { Search } from 'lucide-react';
import { useState } from 'react';
import type { ArtNetNode } from '../../core/wall/pixels/art-net';
import { findNodes } from '../actions/pixel-network';
import { say } from '../parts/notices';

/** Asks the network for Art-Net nodes, and lists those that answer. */
export function NodeSearch({ choose }: { choose(node: ArtNetNode): void }) {
  const [found, setFound] = useState<readonly ArtNetNode[] | 'looking' | null>(null);
  const look = (): void => {
    setFound('looking');
    findNodes().then(setFound, (error: Error) => {
      setFound(null);
      say({ tone: 'error', text: error.message });
    });
  };
  return (
    <div className="flex flex-col gap-0.5">
      <button type="button" className="tool self-start" disabled={found === 'looking'} onClick={look}>
        <Search size={13} /> {found === 'looking' ? 'Looking for nodes …' : 'Find nodes'}
      </button>
      {Array.isArray(found) && (
        <ul className="flex flex-col" aria-label="Nodes that answered" data-testid="nodes">
          {(found as readonly ArtNetNode[]).map((node) => (
            <li key={`${node.address} ${node.universes.join()}`}>
              <button
                type="button"
                className="w-full rounded px-2 py-1 text-left hover:bg-base-300"
                title={node.about}
                onClick={() => {
                  choose(node);
                  setFound(null);
                }}
              >
                <span className="block truncate">{node.name || node.about || 'A node without a name'}</span>
                <span className="figures quiet block text-2xs">
                  {node.address}
                  {node.universes.length > 0 && ` · universes ${node.universes.join(', ')}`}
                </span>
              </button>
            </li>
          ))}
          {found.length === 0 && <li className="quiet">No node answered.</li>}
        </ul>
      )}
    </div>
  );
}
