import { Bookmark, Check, Trash2 } from 'lucide-react';
import { useState } from 'react';
import { alikeAmong, copyControls, pasteControls } from '../../core/show/edit-controls';
import type { PatchNode, Scene } from '../../core/document/types';
import { catalogue } from '../../nodes/catalogue';
import { dropPreset, keepPreset, presets } from '../data/presets';
import { sessionStore } from '../data/session';
import { editScene } from '../data/show-store';

/** Sets of controls of this kind that were kept: to be taken, kept anew and dropped. */
export default function PresetMenu({ scene, node }: { scene: Scene; node: PatchNode }) {
  const kept = presets((s) => s.ofKind[node.kind]) ?? [];
  const [name, setName] = useState('');
  const keep = (): void => {
    if (!name.trim()) return;
    keepPreset(name.trim().slice(0, 40), copyControls(node));
    setName('');
  };
  return (
    <details className="dropdown dropdown-end relative" data-testid="presets">
      <summary className="tool cursor-pointer list-none" title="Presets of this kind, kept in this browser">
        <Bookmark size={13} /> Presets
      </summary>
      <div className="absolute right-0 z-30 w-60 rounded border edge bg-base-200 p-2 shadow-xl">
        {kept.length === 0 && <p className="quiet px-1 pb-1 text-2xs">None is kept yet.</p>}
        <ul>
          {kept.map(({ name: of, state }) => (
            <li key={of} className="flex items-center">
              <button
                type="button"
                className="grow truncate rounded px-1.5 py-0.5 text-left hover:bg-base-300"
                onClick={() => {
                  const ids = alikeAmong(scene, node.id, sessionStore.getState().selection);
                  editScene(scene.id, (draft) => pasteControls(draft, catalogue, ids, state));
                }}
              >
                {of}
              </button>
              <button
                type="button"
                className="tool px-1"
                aria-label={`Drop the preset ${of}`}
                onClick={() => dropPreset(node.kind, of)}
              >
                <Trash2 size={12} />
              </button>
            </li>
          ))}
        </ul>
        <form
          className="mt-1 flex gap-1 border-t edge pt-2"
          onSubmit={(event) => {
            event.preventDefault();
            keep();
          }}
        >
          <input
            aria-label="Name of a new preset"
            placeholder="Keep these as…"
            className="h-6 w-full rounded border edge bg-base-100 px-2 outline-none focus:border-primary"
            value={name}
            onChange={(event) => setName(event.target.value)}
          />
          <button type="submit" className="tool px-1" aria-label="Keep the preset">
            <Check size={13} />
          </button>
        </form>
      </div>
    </details>
  );
}
