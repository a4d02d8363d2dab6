import { Boxes, Download, FolderOpen, GitFork, Library, Ungroup, type LucideIcon } from 'lucide-react';
import { useEffect } from 'react';
import { usesOf } from '../../core/show/edit-module';
import { isSameModule, moduleChanges } from '../../core/show/module-pack';
import type { PatchNode, Scene } from '../../core/document/types';
import { catalogue } from '../../nodes/catalogue';
import { moduleOfNode, renameModule } from '../actions/module-actions';
import { exportModule, keepInLibrary, updateFromLibrary } from '../actions/library-actions';
import type { Command } from '../commands/command';
import { commandOf, runCommand, titleOf } from '../commands/registry';
import { libraryStore, loadLibrary } from '../data/module-library';
import { editScene, endGesture, useShow } from '../data/show-store';
import { TextField } from '../parts/field';
import { Row, Section } from '../parts/rows';
import { ScrubNumber } from '../parts/scrub-number';

/** What the library has newer of a module than the show, and the button that takes it over. */
function Newer({ id }: { id: string }) {
  const own = useShow((show) => show.modules[id]);
  const kept = libraryStore((s) => s.modules.find(({ id: other }) => other === id));
  useEffect(() => void loadLibrary(), []);
  const other = kept?.pack.modules[id];
  if (!other || other.version <= own.version || isSameModule(own, other)) return null;
  return (
    <div className="my-1 rounded bg-base-300 px-2 py-1.5 text-2xs" data-testid="newer-module">
      <p>
        The library has version {other.version}; this show has version {own.version}.
      </p>
      <ul className="my-1 list-disc pl-4">
        {moduleChanges(own, other, catalogue).map((sentence) => (
          <li key={sentence}>{sentence}</li>
        ))}
      </ul>
      <button
        type="button"
        className="btn btn-xs border edge bg-base-100"
        onClick={() => updateFromLibrary(id)}
      >
        Take version {other.version}
      </button>
    </div>
  );
}

function Tool({ id, icon: Icon, label }: { id: Command['id']; icon: LucideIcon; label: string }) {
  return (
    <button type="button" className="tool" title={titleOf(commandOf(id))} onClick={() => runCommand(id)}>
      <Icon size={14} /> {label}
    </button>
  );
}

/** Of a node that is a module: what can be done with the module, and what this node of it has of its own. */
export default function ModuleSection({ scene, node }: { scene: Scene; node: PatchNode }) {
  const module = useShow((show) => moduleOfNode(show, node));
  const uses = useShow((show) => (module ? usesOf(show, module.id) : 0));
  if (!module) return null;
  const { id, name, version } = module;
  return (
    <div className="px-3">
      <Section title="Module">
        <Row label="Its name">
          <TextField
            label="Name of the module"
            value={name}
            className="h-6"
            onChange={(to) => renameModule(id, to)}
          />
        </Row>
        <p className="quiet py-1 text-2xs" data-testid="module-uses">
          {uses === 1
            ? 'This is its only node'
            : `${uses} nodes are of it: what is changed inside changes all`}{' '}
          · version {version}
        </p>
        <Newer id={id} />
        <div className="flex flex-wrap gap-x-1" role="group" aria-label="Module">
          <Tool id="module.open" icon={FolderOpen} label="Open" />
          <Tool id="module.dissolve" icon={Ungroup} label="Dissolve" />
          {uses > 1 && <Tool id="module.own" icon={GitFork} label="Its own" />}
          <button
            type="button"
            className="tool"
            title="Keeps the module in the library of this browser, for every show"
            onClick={() => void keepInLibrary(id)}
          >
            <Library size={14} /> Keep
          </button>
          <button
            type="button"
            className="tool"
            title="Saves the module as a file, with all it needs"
            onClick={() => void exportModule(id)}
          >
            <Download size={14} /> Export
          </button>
        </div>
        <Row label="Behind by">
          <ScrubNumber
            label="Behind by"
            value={node.delay ?? 0}
            step={0.01}
            fine={0.001}
            min={-86400}
            max={86400}
            unit=" s"
            className="w-20"
            onChange={(v) =>
              editScene(
                scene.id,
                (draft) => {
                  if (v === 0) delete draft.nodes[node.id].delay;
                  else draft.nodes[node.id].delay = v;
                },
                `${node.id} delay`,
              )
            }
            onDone={endGesture}
          />
          <span
            className="quiet truncate text-2xs"
            title="What has a memory or comes from outside is not behind"
          >
            <Boxes size={11} className="mr-1 inline" />
            the time inside of this one
          </span>
        </Row>
      </Section>
    </div>
  );
}
