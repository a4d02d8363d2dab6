import { choice, colour, number } from '../../core/kind/controls';
import { imageKind } from '../../core/kind/kind';

export default imageKind({
  id: 'shot',
  label: 'Shot',
  summary: 'Renders bodies, copies and lights through a camera into an image.',
  words: ['render', '3d', 'scene', 'photograph', 'picture of props'],
  inputs: {
    props: {
      label: 'Props',
      help: 'Bodies, instances, lights and a camera, in any number.',
      carries: 'prop',
      many: true,
    },
  },
  controls: {
    background: colour({
      label: 'Background',
      help: 'Behind everything; alpha 0 is see-through.',
      default: [0, 0, 0, 0],
    }),
    edges: choice({
      label: 'Edges',
      help: 'Smooth edges cost a little more.',
      options: { smooth: 'Smooth', plain: 'Plain' },
      default: 'smooth',
    }),
    exposure: number({
      label: 'Exposure',
      help: 'Brightness of the shot.',
      default: 1,
      range: [0, 3],
      min: 0,
    }),
    tone: choice({
      label: 'Tone',
      help: 'Soft brings added light into range instead of cutting it.',
      options: { none: 'As it is', soft: 'Soft' },
      default: 'soft',
    }),
    gives: choice({
      label: 'Gives',
      help: 'The picture, or how near everything is, for fog, blurs and masks: white is near.',
      options: { picture: 'Picture', depth: 'Depth' },
      default: 'picture',
    }),
    depthFrom: number({
      label: 'White at',
      help: 'Distance from the camera that is white.',
      default: 1,
      range: [0, 5],
      shownIf: (c) => c.gives === 'depth',
    }),
    depthTo: number({
      label: 'Black at',
      help: 'Distance that is black, as is what is not covered.',
      default: 3,
      range: [0, 10],
      shownIf: (c) => c.gives === 'depth',
    }),
    shadowSize: choice({
      label: 'Shadows',
      help: 'Pixels of a shadow from side to side: more are finer and cost more.',
      options: { '512': 'Coarse', '1024': 'Fine', '2048': 'Finest' },
      default: '1024',
    }),
  },
  paint: {
    type: 'shot',
    settings: ({ controls: c }) => ({
      background: c.background,
      samples: c.edges === 'smooth' ? 4 : 0,
      tone: c.tone,
      exposure: c.exposure,
      gives: c.gives,
      depthRange: [c.depthFrom, c.depthTo],
      shadowSize: Number(c.shadowSize),
    }),
  },
});
