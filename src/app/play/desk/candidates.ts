import { kindOf } from '../../../core/kind/kind';
import { partLabel, partName, partsOf } from '../../../core/kind/controls';
import { canLieOnDesk } from '../../../core/show/edit-desk';
import { catalogue } from '../../../nodes/catalogue';
import { useShow } from '../../data/show-store';

/** What of the patches can be put on the desk: controls that a hand can move and no wire drives. */
export function useCandidates(scene: string | null): [string, string][] {
  const scenes = useShow((show) => show.scenes);
  return scenes
    .filter(({ id }) => scene === null || id === scene)
    .flatMap((one) =>
      Object.values(one.nodes).flatMap((node) => {
        const kind = kindOf(catalogue, node);
        if (!kind) return [];
        return Object.entries(kind.controls).flatMap(([control, spec]): [string, string][] => {
          if (!canLieOnDesk(spec)) return [];
          const parts = partsOf(spec);
          const whole = spec.type === 'colour' || spec.type === 'point' || parts.length < 2;
          const before = scene === null ? `${one.name} · ` : '';
          const names: [string, string][] = whole
            ? [[control, spec.label]]
            : parts.map((part, k) => [partName(control, part), partLabel(spec, k)]);
          return names.map(([part, label]) => [
            JSON.stringify([one.id, node.id, part]),
            `${before}${node.name} · ${label}`,
          ]);
        });
      }),
    );
}
