import { useMemo } from 'react';
import { connectedTo, linksOf, type Link } from '../../core/patch/links';
import type { Scene } from '../../core/document/types';
import { catalogue } from '../../nodes/catalogue';
import { patchLook } from '../data/patch-look';
import { carriedAlong } from './flow-model';
import { jointsOf } from './wire-curves';

export interface Look {
  /** Uses of nodes without a wire. */
  links: readonly Link[];
  /** Nodes that hang together with the chosen ones, while these are looked at alone; null: all of them. */
  focused: ReadonlySet<string> | null;
  /** Where wires part that run together, by wire. */
  joints: ReadonlyMap<string, readonly [number, number]> | null;
}

/** What of a patch is drawn otherwise: links, what is in focus, and bundles of wires. */
export function useLook(scene: Scene, selection: readonly string[]): Look {
  const { bundles, focus } = patchLook();
  const links = useMemo(() => linksOf(scene, catalogue), [scene]);
  const focused = useMemo(
    () => (focus && selection.length ? connectedTo(scene, links, selection) : null),
    [scene, links, selection, focus],
  );
  const joints = useMemo(
    () => (bundles ? jointsOf(scene, (wire) => carriedAlong(scene, wire)) : null),
    [scene, bundles],
  );
  return { links, focused, joints };
}
