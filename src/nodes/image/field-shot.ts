import { choice, colour, number, toggle } from '../../core/kind/controls';
import { imageKind } from '../../core/kind/kind';

export default imageKind({
  id: 'field-shot',
  label: 'Field Shot',
  summary: 'Renders distance fields through a camera, with soft shadows and contact shading.',
  words: ['raymarch', 'render', 'sdf', 'distance field', 'photograph', 'march', '3d'],
  inputs: {
    fields: { label: 'Fields', help: 'Any number of fields, side by side.', carries: 'field', many: true },
    props: {
      label: 'Camera and lights',
      help: 'The same camera and lights as a Shot takes.',
      carries: 'prop',
      many: true,
    },
  },
  controls: {
    quality: number({
      label: 'Quality',
      help: 'Steps along each ray, and pixels: low while you build, high for the stage.',
      default: 0.6,
      range: [0, 1],
      min: 0,
      max: 1,
    }),
    surface: choice({
      label: 'Surface',
      help: 'Lit by the lights, or plain colour.',
      options: { lit: 'Lit', colour: 'Plain colour' },
      default: 'lit',
    }),
    shadows: toggle({
      label: 'Shadows',
      help: 'Soft shadows of the lights that cast them; of the sun if no light is wired.',
      default: true,
      shownIf: (c) => c.surface === 'lit',
    }),
    contact: number({
      label: 'Contact shading',
      help: 'How dark it gets where surfaces are close to each other.',
      default: 0.5,
      range: [0, 1],
      min: 0,
      max: 1,
      onOff: true,
      shownIf: (c) => c.surface === 'lit',
    }),
    background: colour({
      label: 'Background',
      help: 'Behind everything; alpha 0 is see-through.',
      default: [0, 0, 0, 0],
    }),
    far: number({
      label: 'Farthest',
      help: 'Distance at which a ray gives up.',
      default: 8,
      range: [2, 20],
      min: 0.1,
      max: 200,
    }),
    fog: number({
      label: 'Fog',
      help: 'How much distance fades it into the background.',
      default: 0,
      range: [0, 1],
      min: 0,
      max: 1,
    }),
    fogNear: number({
      label: 'Fog from',
      help: 'Distance from the camera where it begins.',
      default: 1.5,
      range: [0, 5],
      shownIf: (c) => Number(c.fog) !== 0,
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
      help: 'Soft brings bright light into range instead of cutting it.',
      options: { none: 'As it is', soft: 'Soft' },
      default: 'soft',
    }),
  },
  sizeFrom: ({ controls: c, canvas }) => {
    const share = 0.35 + 0.65 * c.quality;
    return [Math.max(1, Math.round(canvas.width * share)), Math.max(1, Math.round(canvas.height * share))];
  },
  paint: {
    type: 'field',
    settings: ({ controls: c }) => ({
      background: c.background,
      tone: c.tone,
      exposure: c.exposure,
      steps: Math.round(24 + 136 * c.quality),
      far: c.far,
      shadows: c.shadows,
      contact: c.contact,
      lit: c.surface === 'lit',
      fog: { near: c.fogNear, far: c.far, colour: c.background, amount: c.fog },
    }),
  },
});
