import { amount, choice } from '../../core/kind/controls';
import { imageKind } from '../../core/kind/kind';
import { channelGlsl, channelOptions, outside, outsideGlsl } from '../glsl/colour';

export default imageKind({
  id: 'remap-image',
  label: 'Remap Image',
  summary:
    'Reads a picture at the places another one names: a map of coordinates decides what is seen where.',
  words: ['uv', 'lookup', 'coordinates', 'warp', 'st map', 'lens', 'address'],
  inputs: {
    picture: { label: 'Picture', help: 'What is read.', carries: 'image', reads: 'moved' },
    map: {
      label: 'Map',
      help: 'Two of its channels name the place to read, 0..1 from the lower left.',
      carries: 'image',
    },
  },
  controls: {
    across: choice({
      label: 'Across from',
      help: 'Channel of the place from left to right.',
      options: channelOptions,
      default: 'red',
    }),
    up: choice({
      label: 'Up from',
      help: 'Channel of the place from below to above.',
      options: channelOptions,
      default: 'green',
    }),
    outside: outside('hold', 'What is seen where the map names a place outside.'),
    amount,
  },
  paint: {
    type: 'shader',
    wet: true,
    helpers: [channelGlsl, outsideGlsl],
    body: `
      vec4 m = @map(p);
      vec3 at = outsidePlace(vec2(channelOf(m, $across), channelOf(m, $up)), $outside);
      return @picture(at.xy) * at.z * m.a;
    `,
  },
});
