import { takes, type Carries, type Catalogue, type Kind } from '../kind/kind';

/** A kind that turns what a wire carries into what a node takes. */
export interface Between {
  kind: Kind;
  /** Its input for what comes, and the input of the target for what it gives. */
  into: string;
  port: string;
}

/**
 * The kind to put between a wire and a node that cannot take it: one whose first input takes what comes and which gives what the
 * first input of the node takes, the plainest of these. Null if there is none.
 */
export function kindBetween(catalogue: Catalogue, carries: Carries, target: Kind): Between | null {
  const [first] = Object.entries(target.inputs);
  if (!first) return null;
  const [port, spec] = first;
  const found: (Between & { rank: number })[] = [];
  for (const kind of catalogue.values()) {
    if (kind === target || !takes(spec, kind.output) || kind.output === carries) continue;
    if (kind.output === 'image' && kind.isSceneOut) continue;
    const [input] = Object.entries(kind.inputs);
    if (!input || !takes(input[1], carries)) continue;
    // Made for just this, rather than taking it as well.
    const rank = (input[1].carries === carries ? 0 : 1) + Object.keys(kind.inputs).length / 100;
    found.push({ kind, into: input[0], port, rank });
  }
  const best = found.sort((a, b) => a.rank - b.rank)[0];
  return best ? { kind: best.kind, into: best.into, port: best.port } : null;
}
