import { kindOf } from '../src/core/kind/kind';
import type { PatchNode, Show } from '../src/core/document/types';
import { catalogue } from '../src/nodes/catalogue';
import { readFps, readFrames, readPlaces, UsageError, type Options } from './arguments';
import { figure, quoted } from './csv';
import { findAll } from './find';
import { withEngine } from './render';

/** Whether a node gives a distance field: only the engine can say what that is. */
export const isField = (node: PatchNode): boolean => kindOf(catalogue, node)?.output === 'field';

/** Prints distances of fields at places, and the colour there, as CSV: `scene,node,frame,x,y,z,distance,red,green,blue`. */
export async function printFields(
  show: Show,
  files: ReadonlyMap<string, Uint8Array>,
  options: Options,
  print: (line: string) => void,
): Promise<void> {
  const wanted = findAll(show, options.all('scene'), options.all('node'));
  const frames = readFrames(options.get('frames') ?? '0');
  const fps = readFps(options.get('fps') ?? String(show.canvas.fps));
  const places = options.all('at').flatMap(readPlaces);
  if (!places.length)
    throw new UsageError(
      '--at is missing: where the field is asked for, for example --at 0,0,0 --at 0.2,0,0.',
    );
  const part: Show = { ...show, canvas: { ...show.canvas, fps }, scenes: wanted.map(({ scene }) => scene) };
  await withEngine(part, files, async (ask) => {
    print('scene,node,frame,x,y,z,distance,red,green,blue');
    for (const { scene, nodes } of wanted) {
      for (const node of nodes) {
        if (!isField(node)) throw new UsageError(`${node.name} is no field; ask for fields by themselves.`);
        for (const frame of frames) {
          const request = { scene: scene.id, node: node.id, frame, width: 64, height: 36 };
          const values = await ask<number[]>(node.name, 'field', request, places);
          for (let k = 0; k < places.length / 3; k++)
            print(
              [
                quoted(scene.name),
                quoted(node.name),
                frame,
                ...places.slice(3 * k, 3 * k + 3),
                ...values.slice(4 * k, 4 * k + 4).map(figure),
              ].join(','),
            );
        }
      }
    }
  });
}
