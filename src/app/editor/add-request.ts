import { partsOf } from '../../core/kind/controls';
import { takes, type Carries, type Kind } from '../../core/kind/kind';

/** What is being added, and where. */
export interface AddRequest {
  /** Place on the patch. */
  at: readonly [number, number];
  /** Wire being pulled: only kinds that it fits are offered. */
  wire: {
    node: string;
    /** Of a node with several outputs: which; absent: its first. */
    output?: string;
    carries: Carries;
    end: 'source' | 'target';
    port: string;
  } | null;
}

/** The port of a kind that a pulled wire would go to, or null. */
export function fittingPort(of: Kind, wire: AddRequest['wire']): string | null {
  if (!wire) return null;
  const kind = of.adapts ? (of.vary?.(of.adapts(wire.carries)) ?? of) : of;
  if (wire.end === 'target') return kind.output === wire.carries ? 'out' : null;
  const input = Object.entries(kind.inputs).find(([, spec]) => takes(spec, wire.carries));
  if (input) return input[0];
  if (wire.carries !== 'signal') return null;
  const control = Object.entries(kind.controls).find(
    ([, spec]) => partsOf(spec).length > 0 && spec.type !== 'toggle',
  );
  return control ? control[0] : null;
}
