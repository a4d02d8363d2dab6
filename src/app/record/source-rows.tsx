import { homeSpec } from '../../core/export/spec';
import { kindOf } from '../../core/kind/kind';
import { catalogue } from '../../nodes/catalogue';
import { SelectField } from '../parts/field';
import { Row } from '../parts/rows';
import { ScrubNumber } from '../parts/scrub-number';
import { withOutput } from './export-draft';
import type { FormRows } from './form-rows';
import { Segments } from './segments';

/** What is exported: a scene, cues or moves, and on which output. */
export function SourceRows({ show, spec, set }: FormRows) {
  const { source } = spec;
  const scene = source.type === 'scene' ? show.scenes.find(({ id }) => id === source.scene) : undefined;
  const nodes = Object.values(scene?.nodes ?? {}).filter((node) => {
    const output = kindOf(catalogue, node)?.output;
    return output === 'image' || output === 'field';
  });
  return (
    <>
      <Row label="What">
        <Segments
          label="What"
          value={source.type}
          options={[
            ['scene', 'Scene'],
            ['cues', 'Cues', show.cues.length === 0],
            ['moves', 'Moves', show.moves.length === 0],
          ]}
          onChange={(type) => {
            if (type === 'scene') {
              const home = homeSpec(show, show.scenes[0]);
              set({ source: home.source, range: home.range, name: home.name });
            } else
              set({
                source: type === 'cues' ? { type, handSeconds: 10 } : { type },
                range: { type: 'whole' },
                name: show.name,
              });
          }}
        />
      </Row>
      {source.type === 'scene' && (
        <>
          <Row label="Scene">
            <SelectField
              label="Scene"
              className="min-w-0 flex-1"
              value={source.scene}
              options={show.scenes.map(({ id, name }) => [id, name])}
              onChange={(id) =>
                set({
                  source: { type: 'scene', scene: id, node: null },
                  name: show.scenes.find((one) => one.id === id)!.name,
                })
              }
            />
          </Row>
          <Row label="Picture">
            <SelectField
              label="Picture"
              className="min-w-0 flex-1"
              value={source.node ?? ''}
              options={[
                ['', 'The whole scene'],
                ...nodes.map(({ id, name }): [string, string] => [id, name]),
              ]}
              onChange={(id) => set({ source: { ...source, node: id || null } })}
            />
          </Row>
        </>
      )}
      {source.type === 'cues' && (
        <Row label="By hand after">
          <ScrubNumber
            label="Seconds of cues by hand"
            value={source.handSeconds}
            step={0.5}
            fine={0.1}
            min={0.1}
            max={3600}
            digits={1}
            unit=" s"
            className="flex-1"
            onChange={(handSeconds) => set({ source: { type: 'cues', handSeconds } })}
          />
        </Row>
      )}
      <Row label="Output">
        <SelectField
          label="Output"
          className="min-w-0 flex-1"
          value={spec.output ?? ''}
          options={[
            ['', 'The canvas'],
            ...show.wall.outputs.map(({ id, name }): [string, string] => [id, name]),
          ]}
          onChange={(id) => set(withOutput(show, spec, id || null))}
        />
      </Row>
    </>
  );
}
