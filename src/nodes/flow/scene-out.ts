import { colour, number } from '../../core/kind/controls';
import { imageKind } from '../../core/kind/kind';

export default imageKind({
  id: 'scene-out',
  label: 'Scene Out',
  summary: 'The picture of the scene: what is wired in here goes to the stage.',
  words: ['output', 'final', 'stage', 'result'],
  isSceneOut: true,
  inputs: { picture: { label: 'Picture', help: 'What the audience sees.', carries: 'image' } },
  controls: {
    background: colour({
      label: 'Background',
      help: 'Seen where the picture is see-through.',
      default: [0, 0, 0, 1],
    }),
    brightness: number({
      label: 'Brightness',
      help: 'Brightness of the whole scene.',
      default: 1,
      range: [0, 1],
      min: 0,
      max: 4,
    }),
  },
  shows: ({ background, brightness }) => ({ background, brightness }),
  paint: {
    type: 'shader',
    body: 'return vec4((source.rgb + $background.rgb * (1.0 - clamp(source.a, 0.0, 1.0))) * $brightness, 1.0);',
  },
});
