import type { Show } from '../../core/document/types';
import { takeSceneApart } from '../../core/module/take-apart';
import { makeShow } from '../../core/show/create';
import { makeModule } from '../../core/show/make-module';
import { catalogue } from '../../nodes/catalogue';
import type { Gpu } from '../gpu/gpu';
import type { Shown } from './measure';
import { Patch, Rig, size } from './rig';

/** A patch of pictures and signals, as a performer would build it. */
function build(): { patch: Patch; parts: string[][]; last: string } {
  const patch = new Patch();
  const noise = patch.add('noise', { octaves: 3 });
  const wave = patch.add('oscillator', { rate: 0.3 });
  const tint = patch.add('gradient-map');
  patch.wire(noise, tint, 'picture');
  const levels = patch.add('levels', { contrast: 1.4 });
  patch.wire(tint, levels, 'picture');
  patch.wire(wave, levels, 'brightness');
  const map = patch.add('noise', { channels: 'three', octaves: 2 });
  const bent = patch.add('displace', { push: 0.1 });
  patch.wire(levels, bent, 'picture');
  patch.wire(map, bent, 'map');
  const blur = patch.add('blur', { radius: 0.01 });
  patch.wire(bent, blur, 'picture');
  const over = patch.add('blend', { mode: 'screen', amount: 0.4 });
  patch.wire(bent, over, 'picture');
  patch.wire(blur, over, 'over');
  const turned = patch.add('hue-saturation', { hue: 30 });
  patch.wire(over, turned, 'picture');
  return {
    patch,
    parts: [
      [tint, levels, wave],
      [bent, map],
      [blur, over],
    ],
    last: turned,
  };
}

/** The same with its parts in three modules, each in the next. */
function nested(gpu: Gpu): Rig {
  const { patch, parts, last } = build();
  const show: Show = { ...makeShow(catalogue, 'Modules'), scenes: [patch.scene] };
  let inner: string | null = null;
  parts.forEach((part, k) => {
    inner = makeModule(show, catalogue, patch.scene, inner ? [inner, ...part] : part, `Module ${k + 1}`);
  });
  catalogue.take(show.modules);
  const rig = new Rig(gpu, patch, last, {}, size);
  const { nodes, wires } = takeSceneApart(patch.scene, show.modules, catalogue);
  Object.assign(patch.scene, { nodes, wires });
  return rig;
}

/** A patch in three nested modules, and the same without. */
export function nestedAndFlat(gpu: Gpu): [Shown, Shown] {
  const { patch, last } = build();
  return [nested(gpu), new Rig(gpu, patch, last, {}, size)];
}
