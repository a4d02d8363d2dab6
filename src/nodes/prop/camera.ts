import { angle, choice, number, vector } from '../../core/kind/controls';
import { propKind } from '../../core/kind/kind';

export default propKind({
  id: 'camera',
  label: 'Camera',
  summary: 'Where the scene is seen from: round the middle, or from a place of its own.',
  words: ['depth of field', 'focus', 'view', 'lens', 'orbit', 'zoom', 'perspective', 'top view', 'fly'],
  inputs: {},
  controls: {
    by: choice({
      label: 'Stands',
      help: 'Round what it looks at, by angle and distance, or at a place.',
      options: { orbit: 'Round its aim', place: 'At a place' },
      default: 'orbit',
    }),
    orbit: angle({
      label: 'Orbit',
      help: 'Angle round the aim; 0 is in front. Drag across the monitor.',
      drag: 'across',
      default: 30,
      range: [0, 360],
      shownIf: (c) => c.by === 'orbit',
    }),
    height: angle({
      label: 'Height',
      help: 'Angle above the ground; 90 looks straight down. Drag up and down on the monitor.',
      drag: 'up',
      default: 25,
      range: [-90, 90],
      min: -90,
      max: 90,
      shownIf: (c) => c.by === 'orbit',
    }),
    distance: number({
      label: 'Distance',
      help: 'From what it looks at. Turn the wheel over the monitor.',
      drag: 'wheel',
      default: 1.9,
      range: [0.2, 6],
      min: 0.001,
      shownIf: (c) => c.by === 'orbit',
    }),
    place: vector({
      label: 'Place',
      help: 'Where it stands.',
      default: [0, 0, 1.5],
      range: [-3, 3],
      shownIf: (c) => c.by === 'place',
    }),
    aim: vector({ label: 'Aim', help: 'What it looks at.', default: [0, 0, 0], range: [-1, 1] }),
    roll: angle({ label: 'Roll', help: 'Tilts the picture.', default: 0, range: [-180, 180] }),
    projection: choice({
      label: 'Projection',
      help: 'With perspective, or straight on.',
      options: { perspective: 'Perspective', straight: 'Straight on' },
      default: 'perspective',
    }),
    lensBy: choice({
      label: 'Width by',
      help: 'An angle, or the focal length of a lens before a picture 24 mm high.',
      options: { view: 'Field of view', lens: 'Lens' },
      default: 'view',
      shownIf: (c) => c.projection === 'perspective',
    }),
    lens: number({
      label: 'Lens',
      help: 'Focal length; short is wide.',
      default: 35,
      range: [12, 135],
      min: 1,
      max: 2000,
      unit: 'mm',
      shownIf: (c) => c.projection === 'perspective' && c.lensBy === 'lens',
    }),
    view: angle({
      label: 'Field of view',
      help: 'From bottom to top.',
      default: 40,
      range: [10, 120],
      min: 1,
      max: 170,
      shownIf: (c) => c.projection === 'perspective' && c.lensBy === 'view',
    }),
    viewHeight: number({
      label: 'View height',
      help: 'Scene units from bottom to top.',
      default: 1,
      range: [0.1, 4],
      min: 0.001,
      shownIf: (c) => c.projection === 'straight',
    }),
    near: number({
      label: 'Nearest',
      help: 'What is closer is not seen.',
      default: 0.01,
      range: [0.001, 1],
      min: 0.0001,
    }),
    far: number({
      label: 'Farthest',
      help: 'What is further is not seen.',
      default: 100,
      range: [1, 200],
      min: 0.01,
    }),
    blur: number({
      label: 'Depth blur',
      help: 'How much is blurred that is not in focus; 0 is sharp everywhere.',
      default: 0,
      range: [0, 0.05],
      min: 0,
      max: 0.2,
      onOff: true,
    }),
    focus: number({
      label: 'Focus',
      help: 'Distance from the camera that is sharp; 0 is that of its aim.',
      default: 0,
      range: [0, 5],
      min: 0,
      shownIf: (c) => Number(c.blur) !== 0,
    }),
  },
  describe({ controls: c }) {
    let place = c.place;
    if (c.by === 'orbit') {
      // Straight above, "up" has no direction: a hair's breadth keeps the picture from turning over.
      const height = Math.max(-1.5707, Math.min(1.5707, c.height));
      const flat = c.distance * Math.cos(height);
      place = [
        c.aim[0] + flat * Math.sin(c.orbit),
        c.aim[1] + c.distance * Math.sin(height),
        c.aim[2] + flat * Math.cos(c.orbit),
      ];
    }
    return {
      type: 'camera',
      projection: c.projection,
      place,
      lookAt: c.aim,
      rollRad: c.roll,
      // Half of 24 mm over the focal length is the tangent of half the angle.
      fieldOfViewRad: c.lensBy === 'lens' ? 2 * Math.atan(12 / c.lens) : c.view,
      viewHeight: c.viewHeight,
      near: c.near,
      far: Math.max(c.far, c.near * 1.01),
      focus: c.focus > 0 ? c.focus : Math.hypot(...place.map((v, k) => v - c.aim[k])),
      blur: c.blur,
    };
  },
});
