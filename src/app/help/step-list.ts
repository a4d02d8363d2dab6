import type { Scene, Wire } from '../../core/document/types';
import { kindOf } from '../../core/kind/kind';
import { portOf } from '../../core/patch/wiring';
import { catalogue } from '../../nodes/catalogue';

/** What the first steps look at to see that one is done. */
export interface Doing {
  selection: readonly string[];
  scene: Scene | null;
  stages: number;
}

interface Step {
  title: string;
  text: string;
  /** Keys that do it. */
  keys?: string;
  /** What it is about on the page, as a selector. */
  at: string;
  /** Whether it was done since it was shown. */
  isDone(before: Doing, now: Doing): boolean;
}

const nodes = ({ scene }: Doing): number => Object.keys(scene?.nodes ?? {}).length;

/** The wires of a patch, by where they lead. */
const ends = ({ scene }: Doing): Set<string> =>
  new Set(Object.values(scene?.wires ?? {}).map(({ from, to }) => `${from.node} ${to.node} ${to.port}`));

/** How many controls are moved by a formula, a motion or a wire. */
function driven({ scene }: Doing): number {
  if (!scene) return 0;
  const isControl = ({ to }: Wire): boolean => {
    const kind = kindOf(catalogue, scene.nodes[to.node]);
    return kind !== undefined && portOf(kind, to.port)?.type === 'control';
  };
  return Object.values(scene.nodes).reduce(
    (sum, { formulas, motions }) => sum + Object.keys(formulas).length + Object.values(motions).flat().length,
    Object.values(scene.wires).filter(isControl).length,
  );
}

/** From a first look to a picture on stage. Each is ticked by doing it; all can be passed over. */
export const steps: readonly Step[] = [
  {
    title: 'Choose a card',
    text: 'The patch in the middle is the picture, step by step: each card shows what it makes, and its wires lead on to the next. Click a card that moves.',
    at: '[data-testid="patch"]',
    isDone: (_before, { selection }) => selection.length === 1,
  },
  {
    title: 'Drag a number',
    text: 'The controls of the chosen card stand on the right. Drag one of its numbers or sliders and watch the picture above. A double-click on a name sets it back.',
    at: '[data-testid="inspector"]',
    isDone: ({ scene: before }, { scene: now }) =>
      Object.values(now?.nodes ?? {}).some(
        ({ id, controls }) => before?.nodes[id] && before.nodes[id].controls !== controls,
      ),
  },
  {
    title: 'Add a step of your own',
    text: 'Add finds nodes by what they should do. Type glow, or copies, or your own words, and press Enter.',
    keys: '/',
    at: '[data-tool="patch.add"]',
    isDone: (before, now) => nodes(now) > nodes(before),
  },
  {
    title: 'Wire it in',
    text: 'Drag from the right edge of one card to the left edge of another, or drop the new card on a wire: it then stands between. What reaches Scene Out is the picture.',
    at: '[data-testid="patch"]',
    isDone: (before, now) => {
      const known = ends(before);
      return [...ends(now)].some((end) => !known.has(end));
    },
  },
  {
    title: 'Let it move',
    text: 'The button at the end of a control row opens what can move it. Add a motion such as Swing, or write a formula such as time.',
    at: '[data-testid="inspector"]',
    isDone: (before, now) => driven(now) > driven(before),
  },
  {
    title: 'Put it on stage',
    text: 'Stage opens a window with the picture and nothing else: drag it to the projector and press F there. F9 is blackout, in every view. Play has the scenes, the desk and the cues.',
    at: '[data-testid="stage-button"]',
    isDone: (before, now) => now.stages > before.stages,
  },
];
