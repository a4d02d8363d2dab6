// Written by scripts/generate.ts from the folder. Do not edit.
import imageBeam from './image/beam';
import imageBlend from './image/blend';
import imageBlur from './image/blur';
import imageCameraFeed from './image/camera-feed';
import imageChannelShift from './image/channel-shift';
import imageChannelSwap from './image/channel-swap';
import imageClip from './image/clip';
import imageCoordinateMap from './image/coordinate-map';
import imageCornerPin from './image/corner-pin';
import imageDataImage from './image/data-image';
import imageDisplace from './image/displace';
import imageEdges from './image/edges';
import imageFieldShot from './image/field-shot';
import imageFill from './image/fill';
import imageFlatShape from './image/flat-shape';
import imageFrameStore from './image/frame-store';
import imageGlow from './image/glow';
import imageGradientMap from './image/gradient-map';
import imageGradient from './image/gradient';
import imageGrain from './image/grain';
import imageHueSaturation from './image/hue-saturation';
import imageKeyOut from './image/key-out';
import imageLattice from './image/lattice';
import imageLedDots from './image/led-dots';
import imageLevels from './image/levels';
import imageLut from './image/lut';
import imageMaskedMix from './image/masked-mix';
import imageMirror from './image/mirror';
import imageMosaic from './image/mosaic';
import imageNoise from './image/noise';
import imagePicture from './image/picture';
import imagePolarWrap from './image/polar-wrap';
import imageRemapImage from './image/remap-image';
import imageResize from './image/resize';
import imageScanlines from './image/scanlines';
import imageShader from './image/shader';
import imageShot from './image/shot';
import imageSteepness from './image/steepness';
import imageStripes from './image/stripes';
import imageText from './image/text';
import imageTitles from './image/titles';
import imageTone from './image/tone';
import imageTransform from './image/transform';
import signalAccumulate from './signal/accumulate';
import signalAudioBands from './signal/audio-bands';
import signalAudioLevel from './signal/audio-level';
import signalAudioOnset from './signal/audio-onset';
import signalBeatClock from './signal/beat-clock';
import signalBetween from './signal/between';
import signalCombine from './signal/combine';
import signalCounter from './signal/counter';
import signalCrossing from './signal/crossing';
import signalCurve from './signal/curve';
import signalDrift from './signal/drift';
import signalEnvelope from './signal/envelope';
import signalFormula from './signal/formula';
import signalGamepad from './signal/gamepad';
import signalGate from './signal/gate';
import signalHistory from './signal/history';
import signalHoldValue from './signal/hold-value';
import signalJoinLanes from './signal/join-lanes';
import signalKeyframes from './signal/keyframes';
import signalKeys from './signal/keys';
import signalLaneDelay from './signal/lane-delay';
import signalMidi from './signal/midi';
import signalNumberLine from './signal/number-line';
import signalOsc from './signal/osc';
import signalOscillator from './signal/oscillator';
import signalPickLanes from './signal/pick-lanes';
import signalPixelReader from './signal/pixel-reader';
import signalPointReader from './signal/point-reader';
import signalPointer from './signal/pointer';
import signalRandomWalk from './signal/random-walk';
import signalRearrange from './signal/rearrange';
import signalRemap from './signal/remap';
import signalResample from './signal/resample';
import signalRipple from './signal/ripple';
import signalScatter from './signal/scatter';
import signalShapeByCurve from './signal/shape-by-curve';
import signalSmooth from './signal/smooth';
import signalSteps from './signal/steps';
import signalTable from './signal/table';
import signalTimeSpread from './signal/time-spread';
import signalValues from './signal/values';
import shapeArc from './shape/arc';
import shapeBall from './shape/ball';
import shapeBend from './shape/bend';
import shapeBox from './shape/box';
import shapeEditPoints from './shape/edit-points';
import shapeExtrude from './shape/extrude';
import shapeGather from './shape/gather';
import shapeLaneCurve from './shape/lane-curve';
import shapeLetterform from './shape/letterform';
import shapeLoft from './shape/loft';
import shapeModel from './shape/model';
import shapeOrderPoints from './shape/order-points';
import shapePanels from './shape/panels';
import shapePlace from './shape/place';
import shapePointGrid from './shape/point-grid';
import shapePointScatter from './shape/point-scatter';
import shapePolyhedron from './shape/polyhedron';
import shapePush from './shape/push';
import shapeResampleCurve from './shape/resample-curve';
import shapeRing from './shape/ring';
import shapeSegment from './shape/segment';
import shapeSheet from './shape/sheet';
import shapeSpiral from './shape/spiral';
import shapeStack from './shape/stack';
import shapeStrands from './shape/strands';
import shapeStruts from './shape/struts';
import shapeTaper from './shape/taper';
import shapeTorus from './shape/torus';
import shapeTube from './shape/tube';
import shapeTwist from './shape/twist';
import propBody from './prop/body';
import propCamera from './prop/camera';
import propInstances from './prop/instances';
import propLight from './prop/light';
import propRelief from './prop/relief';
import fieldFieldBall from './field/field-ball';
import fieldFieldBend from './field/field-bend';
import fieldFieldBlend from './field/field-blend';
import fieldFieldBox from './field/field-box';
import fieldFieldCopies from './field/field-copies';
import fieldFieldMirror from './field/field-mirror';
import fieldFieldPlace from './field/field-place';
import fieldFieldPlane from './field/field-plane';
import fieldFieldPrism from './field/field-prism';
import fieldFieldRepeat from './field/field-repeat';
import fieldFieldRipple from './field/field-ripple';
import fieldFieldRound from './field/field-round';
import fieldFieldShell from './field/field-shell';
import fieldFieldTorus from './field/field-torus';
import fieldFieldTube from './field/field-tube';
import fieldFieldTwist from './field/field-twist';
import flowChoose from './flow/choose';
import flowRelay from './flow/relay';
import flowSceneOut from './flow/scene-out';
import flowWayIn from './flow/way-in';
import flowWayOut from './flow/way-out';

export const allKinds = [
  { family: 'image', kind: imageBeam },
  { family: 'image', kind: imageBlend },
  { family: 'image', kind: imageBlur },
  { family: 'image', kind: imageCameraFeed },
  { family: 'image', kind: imageChannelShift },
  { family: 'image', kind: imageChannelSwap },
  { family: 'image', kind: imageClip },
  { family: 'image', kind: imageCoordinateMap },
  { family: 'image', kind: imageCornerPin },
  { family: 'image', kind: imageDataImage },
  { family: 'image', kind: imageDisplace },
  { family: 'image', kind: imageEdges },
  { family: 'image', kind: imageFieldShot },
  { family: 'image', kind: imageFill },
  { family: 'image', kind: imageFlatShape },
  { family: 'image', kind: imageFrameStore },
  { family: 'image', kind: imageGlow },
  { family: 'image', kind: imageGradientMap },
  { family: 'image', kind: imageGradient },
  { family: 'image', kind: imageGrain },
  { family: 'image', kind: imageHueSaturation },
  { family: 'image', kind: imageKeyOut },
  { family: 'image', kind: imageLattice },
  { family: 'image', kind: imageLedDots },
  { family: 'image', kind: imageLevels },
  { family: 'image', kind: imageLut },
  { family: 'image', kind: imageMaskedMix },
  { family: 'image', kind: imageMirror },
  { family: 'image', kind: imageMosaic },
  { family: 'image', kind: imageNoise },
  { family: 'image', kind: imagePicture },
  { family: 'image', kind: imagePolarWrap },
  { family: 'image', kind: imageRemapImage },
  { family: 'image', kind: imageResize },
  { family: 'image', kind: imageScanlines },
  { family: 'image', kind: imageShader },
  { family: 'image', kind: imageShot },
  { family: 'image', kind: imageSteepness },
  { family: 'image', kind: imageStripes },
  { family: 'image', kind: imageText },
  { family: 'image', kind: imageTitles },
  { family: 'image', kind: imageTone },
  { family: 'image', kind: imageTransform },
  { family: 'signal', kind: signalAccumulate },
  { family: 'signal', kind: signalAudioBands },
  { family: 'signal', kind: signalAudioLevel },
  { family: 'signal', kind: signalAudioOnset },
  { family: 'signal', kind: signalBeatClock },
  { family: 'signal', kind: signalBetween },
  { family: 'signal', kind: signalCombine },
  { family: 'signal', kind: signalCounter },
  { family: 'signal', kind: signalCrossing },
  { family: 'signal', kind: signalCurve },
  { family: 'signal', kind: signalDrift },
  { family: 'signal', kind: signalEnvelope },
  { family: 'signal', kind: signalFormula },
  { family: 'signal', kind: signalGamepad },
  { family: 'signal', kind: signalGate },
  { family: 'signal', kind: signalHistory },
  { family: 'signal', kind: signalHoldValue },
  { family: 'signal', kind: signalJoinLanes },
  { family: 'signal', kind: signalKeyframes },
  { family: 'signal', kind: signalKeys },
  { family: 'signal', kind: signalLaneDelay },
  { family: 'signal', kind: signalMidi },
  { family: 'signal', kind: signalNumberLine },
  { family: 'signal', kind: signalOsc },
  { family: 'signal', kind: signalOscillator },
  { family: 'signal', kind: signalPickLanes },
  { family: 'signal', kind: signalPixelReader },
  { family: 'signal', kind: signalPointReader },
  { family: 'signal', kind: signalPointer },
  { family: 'signal', kind: signalRandomWalk },
  { family: 'signal', kind: signalRearrange },
  { family: 'signal', kind: signalRemap },
  { family: 'signal', kind: signalResample },
  { family: 'signal', kind: signalRipple },
  { family: 'signal', kind: signalScatter },
  { family: 'signal', kind: signalShapeByCurve },
  { family: 'signal', kind: signalSmooth },
  { family: 'signal', kind: signalSteps },
  { family: 'signal', kind: signalTable },
  { family: 'signal', kind: signalTimeSpread },
  { family: 'signal', kind: signalValues },
  { family: 'shape', kind: shapeArc },
  { family: 'shape', kind: shapeBall },
  { family: 'shape', kind: shapeBend },
  { family: 'shape', kind: shapeBox },
  { family: 'shape', kind: shapeEditPoints },
  { family: 'shape', kind: shapeExtrude },
  { family: 'shape', kind: shapeGather },
  { family: 'shape', kind: shapeLaneCurve },
  { family: 'shape', kind: shapeLetterform },
  { family: 'shape', kind: shapeLoft },
  { family: 'shape', kind: shapeModel },
  { family: 'shape', kind: shapeOrderPoints },
  { family: 'shape', kind: shapePanels },
  { family: 'shape', kind: shapePlace },
  { family: 'shape', kind: shapePointGrid },
  { family: 'shape', kind: shapePointScatter },
  { family: 'shape', kind: shapePolyhedron },
  { family: 'shape', kind: shapePush },
  { family: 'shape', kind: shapeResampleCurve },
  { family: 'shape', kind: shapeRing },
  { family: 'shape', kind: shapeSegment },
  { family: 'shape', kind: shapeSheet },
  { family: 'shape', kind: shapeSpiral },
  { family: 'shape', kind: shapeStack },
  { family: 'shape', kind: shapeStrands },
  { family: 'shape', kind: shapeStruts },
  { family: 'shape', kind: shapeTaper },
  { family: 'shape', kind: shapeTorus },
  { family: 'shape', kind: shapeTube },
  { family: 'shape', kind: shapeTwist },
  { family: 'prop', kind: propBody },
  { family: 'prop', kind: propCamera },
  { family: 'prop', kind: propInstances },
  { family: 'prop', kind: propLight },
  { family: 'prop', kind: propRelief },
  { family: 'field', kind: fieldFieldBall },
  { family: 'field', kind: fieldFieldBend },
  { family: 'field', kind: fieldFieldBlend },
  { family: 'field', kind: fieldFieldBox },
  { family: 'field', kind: fieldFieldCopies },
  { family: 'field', kind: fieldFieldMirror },
  { family: 'field', kind: fieldFieldPlace },
  { family: 'field', kind: fieldFieldPlane },
  { family: 'field', kind: fieldFieldPrism },
  { family: 'field', kind: fieldFieldRepeat },
  { family: 'field', kind: fieldFieldRipple },
  { family: 'field', kind: fieldFieldRound },
  { family: 'field', kind: fieldFieldShell },
  { family: 'field', kind: fieldFieldTorus },
  { family: 'field', kind: fieldFieldTube },
  { family: 'field', kind: fieldFieldTwist },
  { family: 'flow', kind: flowChoose },
  { family: 'flow', kind: flowRelay },
  { family: 'flow', kind: flowSceneOut },
  { family: 'flow', kind: flowWayIn },
  { family: 'flow', kind: flowWayOut },
] as const;
