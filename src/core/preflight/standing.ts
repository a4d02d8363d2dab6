import type { PatchNode, Scene, Show } from '../document/types';
import { kindOf, type Catalogue, type SignalKind } from '../kind/kind';
import type { ResolvedControls, ControlSpecs } from '../kind/controls';
import { ShowApart } from '../module/take-apart';
import { buildPlan, sceneOutOf } from '../patch/plan';
import { plainValue } from '../run/node-run';
import { catalogueWith } from '../module/show-catalogue';
import { loopReport } from '../show/loop-report';
import { usedFiles } from '../show/used-files';
import type { PreflightFinding, Subject } from './preflight-finding';

/** Share kept of each 1/60 s from which 8 bits hold a trail for ever: what is lost rounds to nothing. */
const fadesIn8Bits = 0.98;

/** A scene as a subject. */
export const sceneSubject = (show: Show, scene: Scene): Subject => ({
  type: 'scene',
  name: scene.name,
  where: `scenes[${show.scenes.indexOf(scene)}] ${scene.name}`,
  at: { view: 'build', scene: scene.id },
});

/** What plays by itself in a show beside its scenes. */
export function performanceSubjects(show: Show): Subject[] {
  const subjects: Subject[] = [];
  if (show.cues.length)
    subjects.push({ type: 'cues', name: 'Running order', where: 'cues', at: { view: 'play' } });
  if (show.moves.length)
    subjects.push({ type: 'moves', name: 'Recorded moves', where: 'moves', at: { view: 'play' } });
  return subjects;
}

function missingFiles(
  show: Show,
  catalogue: Catalogue,
  isThere: (file: string) => boolean,
): PreflightFinding[] {
  return usedFiles(show, catalogue)
    .filter((id) => !isThere(id))
    .map((id) => ({
      level: 'error',
      where: `files.${id}`,
      at: { view: 'shows' },
      what: `${show.files[id].name} is missing. Pack the show with its files (pyrvel pack), or choose another.`,
    }));
}

function pacesOff(show: Show, scene: Scene, catalogue: Catalogue, { where }: Subject): PreflightFinding[] {
  const off = loopReport(scene, catalogue, show.tempo, show.canvas.fps).paces.filter(
    ({ nearest }) => nearest !== null,
  );
  if (!off.length || scene.loop.lock) return [];
  const [{ node }] = off;
  const { name } = scene.nodes[node];
  const what =
    off.length === 1
      ? `A rate on ${name} does not fit`
      : `${off.length} rates, the first on ${name}, do not fit`;
  return [
    {
      // Whether its loop closes is measured; this says why it may not.
      level: 'note',
      where,
      at: { view: 'build', scene: scene.id, node },
      mend: { do: 'lock-loop', scene: scene.id },
      what: `${what} its loop. Locking the loop rounds what does not fit; the inspector with nothing chosen lists it with the nearest that fits.`,
    },
  ];
}

function loopsThatGrow(scene: Scene, { where }: Subject): PreflightFinding[] {
  return Object.values(scene.wires).flatMap((wire): PreflightFinding[] => {
    const { back } = wire;
    if (!back) return [];
    const name = scene.nodes[wire.from.node]?.name ?? wire.from.node;
    const at = { view: 'build', scene: scene.id, node: wire.to.node } as const;
    if (back.guard === 'off' && back.keep >= 1)
      return [
        {
          level: 'note',
          where,
          at,
          mend: { do: 'guard', scene: scene.id, wire: wire.id },
          what: `The loop from ${name} loses nothing and has no guard. That is right for places and speeds; light would only ever add up: then keep less, or switch its guard on.`,
        },
      ];
    if (back.precision === '8' && back.keep > fadesIn8Bits && back.keep < 1)
      return [
        {
          level: 'warning',
          where,
          at,
          what: `The loop from ${name} keeps ${back.keep} in 8 bits: dark trails never fade, since less than one of 256 steps is lost at a time. Take 16 bits.`,
        },
      ];
    return [];
  });
}

/** The controls of a node as they stand in the show. */
const plainControls = ({ controls }: SignalKind, node: PatchNode): ResolvedControls<ControlSpecs> =>
  Object.fromEntries(
    Object.entries(controls).map(([name, spec]) => [name, plainValue(spec, node.controls[name])]),
  ) as ResolvedControls<ControlSpecs>;

/** Values without ends go on for as long as the show does. */
function valuesThatGrow(apart: Scene, catalogue: Catalogue, { where, at }: Subject): PreflightFinding[] {
  const endless = Object.values(apart.nodes).filter((node) => {
    const kind = kindOf(catalogue, node);
    return kind?.output === 'signal' && kind.endless?.(plainControls(kind, node)) === true;
  });
  if (!endless.length) return [];
  return [
    {
      level: 'note',
      where,
      at: { ...at, node: endless[0].id },
      what: `${endless.map(({ name }) => name).join(', ')}: nothing ends what is added up. Far above 100 000 it moves in visible steps; let it wrap where what it drives goes round.`,
    },
  ];
}

function unseenNodes(apart: Scene, catalogue: Catalogue, { where, at }: Subject): PreflightFinding[] {
  const out = sceneOutOf(apart, catalogue);
  if (out === null)
    return [
      {
        level: 'error',
        where,
        at,
        what: 'It has no Scene Out, so it stays black. Add one, and wire a picture into it.',
      },
    ];
  const seen = buildPlan(apart, catalogue, [out]).nodes;
  // What is off or only hands on what enters it has no place of its own in a plan.
  const unseen = Object.values(apart.nodes).filter((node) => {
    const kind = kindOf(catalogue, node);
    return kind !== undefined && node.on && !kind.handsOn && !seen.has(node.id);
  });
  if (!unseen.length) return [];
  const names = unseen.slice(0, 4).map(({ name }) => name);
  const more = unseen.length > 4 ? ` and ${unseen.length - 4} more` : '';
  return [
    {
      level: 'note',
      where,
      at: { ...at, node: unseen[0].id },
      what: `Nobody sees ${names.join(', ')}${more}: nothing leads from there to Scene Out. That costs nothing on stage.`,
    },
  ];
}

/** What is known without drawing. `isThere`: whether the bytes of a file can be had. */
export function standingFindings(
  show: Show,
  scenes: readonly Scene[],
  catalogue: Catalogue,
  isThere: (file: string) => boolean,
): PreflightFinding[] {
  return [
    ...missingFiles(show, catalogue, isThere),
    ...scenes.flatMap((scene) => {
      const subject = sceneSubject(show, scene);
      const apart = new ShowApart(catalogueWith(catalogue, show.modules)).of({ ...show, scenes: [scene] })
        .scenes[0];
      return [
        ...pacesOff(show, scene, catalogue, subject),
        ...loopsThatGrow(scene, subject),
        ...valuesThatGrow(apart, catalogue, subject),
        ...unseenNodes(apart, catalogue, subject),
      ];
    }),
  ];
}
