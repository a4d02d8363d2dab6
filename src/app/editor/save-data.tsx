import { Download, Snowflake } from 'lucide-react';
import { useState } from 'react';
import { dataNames, formatsOf, type DataFormat } from '../../core/export/data/data-request';
import { loopFrames } from '../../core/export/spec';
import { sceneOfPlace } from '../../core/module/place';
import { kindOf } from '../../core/kind/kind';
import type { PatchNode, Scene } from '../../core/document/types';
import type { FrozenPicture } from '../exports/freeze-node';
import { catalogue } from '../../nodes/catalogue';
import { frozenOf, thaw } from '../../core/show/freeze';
import { choose as chooseNodes } from '../data/session';
import { editScene, showStore, useShow } from '../data/show-store';
import { SelectField } from '../parts/field';
import { say } from '../parts/notices';
import { saveAs } from '../parts/save-as';
import { Row, Section } from '../parts/rows';
import { ScrubNumber } from '../parts/scrub-number';

/** Formats that hold the first frame only. */
const stills: readonly DataFormat[] = ['obj', 'ply', 'cube', 'md', 'svg'];

const fileName = (name: string, as: DataFormat): string =>
  `${name.replace(/[^\p{L}\p{N} _-]+/gu, '').trim() || 'node'}.${as}`;

/** Replaces a costly node by what it gives, stored, and brings it back. */
function Freezing({ scene, node }: { scene: Scene; node: PatchNode }) {
  const [isBusy, setBusy] = useState(false);
  const [as, setAs] = useState<FrozenPicture>('video');
  const original = frozenOf(scene, node.id);
  if (original !== null)
    return (
      <Row label="Frozen">
        <button
          type="button"
          className="tool"
          title={`Brings ${scene.nodes[original].name} back in its place`}
          onClick={() => {
            editScene(scene.id, (draft) => void thaw(draft, node.id));
            chooseNodes([original]);
          }}
        >
          <Snowflake size={14} /> Thaw
        </button>
        <span className="quiet min-w-0 truncate text-2xs">stands for {scene.nodes[original].name}</span>
      </Row>
    );
  const isPicture = kindOf(catalogue, node)?.output === 'image';
  return (
    <Row label="Costly?">
      {isPicture && (
        <SelectField
          label="Freeze as"
          className="min-w-0 flex-1"
          value={as}
          options={[
            ['video', 'Video, 8 bits'],
            ['floats', 'Images of floats'],
          ]}
          onChange={(value) => setAs(value as FrozenPicture)}
        />
      )}
      <button
        type="button"
        className="tool"
        disabled={isBusy}
        title="Stores what it gives, and plays that in its place: a picture as a clip of one loop (floats give the very numbers back), a shape as a model, a signal as a table"
        onClick={() => {
          setBusy(true);
          import('../exports/freeze-node')
            .then(({ freezeNode }) => freezeNode(scene, node.id, as))
            .catch((error: Error) => say({ tone: 'error', text: `It cannot be frozen. ${error.message}` }))
            .finally(() => setBusy(false));
        }}
      >
        <Snowflake size={14} /> {isBusy ? 'Freezing' : 'Freeze'}
      </button>
    </Row>
  );
}

/** Saves what a node gives, or its patch, as a file for another program. */
export default function SaveData({ scene, node }: { scene: Scene; node: PatchNode }) {
  const kind = kindOf(catalogue, node);
  const isOut = kind?.output === 'image' && kind.isSceneOut;
  const formats: readonly DataFormat[] = isOut ? ['md', 'svg'] : kind ? formatsOf(kind.output) : [];
  const canvas = useShow((show) => show.canvas);
  const loop = Math.max(1, Math.round(loopFrames(showStore.getState().show, scene, canvas.fps)));
  const [chosen, choose] = useState<DataFormat>(formats[0]);
  const [range, setRange] = useState<[number, number]>([0, loop - 1]);
  const [isBusy, setBusy] = useState(false);
  if (formats.length === 0) return null;
  const as = formats.includes(chosen) ? chosen : formats[0];
  const hasFrames = !stills.includes(as);
  const save = async (): Promise<void> => {
    const { engineFor } = await import('../exports/job-queue');
    const { show } = showStore.getState();
    // An engine of its own: the stage does not notice.
    const client = await engineFor({
      ...show,
      scenes: show.scenes.filter(({ id }) => id === sceneOfPlace(scene.id)),
    });
    try {
      const [first, last] = hasFrames ? range : [range[0], range[0]];
      const request = { scene: scene.id, node: isOut ? null : node.id, as, first, last, fps: canvas.fps };
      const { bytes } = await client.request({ type: 'data', request }, 600000);
      saveAs(new Blob([bytes]), fileName(isOut ? scene.name : node.name, as));
    } finally {
      client.close();
    }
  };
  return (
    <div className="px-3">
      <Section title={isOut ? 'Save the patch' : 'Save what it gives'}>
        <Row label="As">
          <SelectField
            label="Save as"
            className="min-w-0 flex-1"
            value={as}
            options={formats.map((format) => [format, dataNames[format]])}
            onChange={(id) => choose(id as DataFormat)}
          />
          <button
            type="button"
            className="tool"
            disabled={isBusy}
            title="Saves it as a file"
            onClick={() => {
              setBusy(true);
              save()
                .catch((error: Error) => say({ tone: 'error', text: error.message }))
                .finally(() => setBusy(false));
            }}
          >
            <Download size={14} /> {isBusy ? 'Saving' : 'Save'}
          </button>
        </Row>
        {!isOut && <Freezing scene={scene} node={node} />}
        {hasFrames && (
          <Row label="Frames">
            {range.map((frame, k) => (
              <ScrubNumber
                key={k}
                label={k ? 'Last saved frame' : 'First saved frame'}
                value={frame}
                step={1}
                fine={1}
                min={0}
                max={100000}
                digits={0}
                className="min-w-0 flex-1"
                onChange={(value) => {
                  const at = Math.round(value);
                  setRange(([first, last]) => (k ? [Math.min(first, at), at] : [at, Math.max(at, last)]));
                }}
              />
            ))}
          </Row>
        )}
      </Section>
    </div>
  );
}
