import { useQuery } from '@tanstack/react-query';
import { Download, FolderOpen } from 'lucide-react';
import { lazy, Suspense, useEffect, useMemo, useRef, useState } from 'react';
import { kindOf } from '../../../core/kind/kind';
import { givenFunctions, givenNames, readOwnShader } from '../../../core/shader/own-shader';
import { setControl } from '../../../core/show/edit';
import type { PatchNode, Scene } from '../../../core/document/types';
import { catalogue } from '../../../nodes/catalogue';
import { editScene, endGesture } from '../../data/show-store';
import { engine } from '../../engine/client';
import { liveStore } from '../../engine/live';
import { saveAs } from '../../parts/save-as';
import type { CodeFault } from './code-editor';

const CodeEditor = lazy(() => import('./code-editor'));

/** Milliseconds of quiet after which what was typed is taken over. */
const quietMs = 350;

/** Faults of a node that name a line of its text. */
function faultsOf(fault: string | undefined): CodeFault[] {
  return (fault ?? '').split('\n').flatMap((text) => {
    const found = /^Line (\d+): (.*)/.exec(text);
    return found ? [{ line: Number(found[1]), message: found[2] }] : [];
  });
}

const builtIn = (
  'abs acos asin atan ceil clamp cos cross distance dot exp floor fract length log max min mix mod normalize pow ' +
  'radians reflect refract sign sin smoothstep sqrt step tan float int bool vec2 vec3 vec4 mat2 mat3 return for if else const'
).split(' ');

/** The program text of a Shader node, written here while the last good one plays. */
function OwnCode({ scene, node }: { scene: Scene; node: PatchNode }) {
  const stored = String(node.controls.code ?? '');
  const [text, setText] = useState(stored);
  const typed = useRef(stored);
  const timer = useRef<number | null>(null);
  const input = useRef<HTMLInputElement>(null);
  const fault = liveStore((s) => s.faults[scene.id]?.[node.id]);
  const faults = useMemo(() => faultsOf(fault), [fault]);
  const kind = kindOf(catalogue, node);
  const words = useMemo(
    () => [
      ...Object.entries(kind?.inputs ?? {}).map(([name, spec]) => ({
        label: name,
        type: 'function',
        detail: 'vec4 (vec2 place)',
        info: spec.label,
        boost: 2,
      })),
      ...Object.entries(kind?.controls ?? {})
        .filter(([name]) => name !== 'code' && name !== 'good')
        .map(([name, spec]) => ({
          label: name,
          type: 'variable',
          detail: spec.type,
          info: spec.help,
          boost: 2,
        })),
      ...givenFunctions.map(({ name, call, help }) => ({
        label: name,
        type: 'function',
        detail: call,
        info: help,
        boost: 1,
      })),
      ...givenNames.map((name) => ({ label: name, type: 'constant', boost: 1 })),
      ...builtIn.map((name) => ({ label: name, type: 'keyword' })),
    ],
    [kind],
  );
  const take = (next: string): void => {
    editScene(
      scene.id,
      (draft) => {
        setControl(draft, node.id, 'code', next);
        // What plays while a head is half written is the last text whose head could be read.
        try {
          readOwnShader(next);
          setControl(draft, node.id, 'good', next);
        } catch {
          // The node itself says what is wrong.
        }
      },
      `${node.id} code`,
    );
  };
  // Undo, or another file: the text follows, unless it is what was typed here.
  useEffect(() => {
    if (stored === typed.current) return;
    typed.current = stored;
    setText(stored);
  }, [stored]);
  useEffect(
    () => () => {
      if (timer.current !== null) {
        clearTimeout(timer.current);
        take(typed.current);
      }
      endGesture();
    },
    // Only when the editor goes away.
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [],
  );
  const change = (next: string): void => {
    typed.current = next;
    setText(next);
    if (timer.current !== null) clearTimeout(timer.current);
    timer.current = window.setTimeout(() => {
      timer.current = null;
      take(next);
    }, quietMs);
  };
  return (
    <div className="flex min-h-0 grow flex-col">
      <div className="flex h-7 shrink-0 items-center gap-2 px-3">
        <span className={fault ? 'truncate text-error' : 'quiet truncate'} data-testid="code-state">
          {fault ? `${fault.split('\n')[0]} The last good picture plays.` : 'It plays as it is written.'}
        </span>
        <span className="grow" />
        <button
          type="button"
          className="tool"
          title="Open a .glsl file"
          onClick={() => input.current!.click()}
        >
          <FolderOpen size={13} /> Open
        </button>
        <button
          type="button"
          className="tool"
          title="Save the text as a .glsl file"
          onClick={() => saveAs(new Blob([text], { type: 'text/plain' }), `${node.name}.glsl`)}
        >
          <Download size={13} /> Save .glsl
        </button>
        <input
          ref={input}
          type="file"
          accept=".glsl,.frag,.txt"
          className="hidden"
          data-testid="glsl-input"
          onChange={(e) => {
            const file = e.target.files?.[0];
            e.target.value = '';
            if (file) void file.text().then(change);
          }}
        />
      </div>
      <Suspense fallback={<p className="quiet p-3">Opening the editor…</p>}>
        <CodeEditor value={text} faults={faults} words={words} onChange={change} />
      </Suspense>
    </div>
  );
}

/** The shader that a node is drawn by, with all that is joined into it, each under the name of its node. */
function DrawnBy({ scene, node }: { scene: Scene; node: string }) {
  const shader = useQuery({
    queryKey: ['shader', scene.id, node, scene],
    queryFn: () => engine().request({ type: 'shader', scene: scene.id, node }),
    staleTime: 0,
  });
  const text = shader.data?.text ?? '';
  const joined = [...text.matchAll(/^\/\/ (.+) \([^()]+\)$/gm)].map(([, name]) => name);
  return (
    <div className="flex min-h-0 grow flex-col">
      <p className="quiet h-7 shrink-0 truncate px-3 leading-7">
        {text
          ? `One pass draws ${[...new Set(joined)].join(', ')}.`
          : 'This step is no shader of its own, or its picture is not watched.'}
      </p>
      <Suspense fallback={null}>
        <CodeEditor value={text} readOnly faults={noFaults} words={noWords} />
      </Suspense>
    </div>
  );
}

const noFaults: readonly CodeFault[] = [];
const noWords: readonly never[] = [];

/** The code of a node on the bench: its own, to be written, or the shader that it is drawn by, to be read. */
export default function CodeBench({ scene, node, isOwn }: { scene: Scene; node: PatchNode; isOwn: boolean }) {
  return isOwn ? (
    <OwnCode key={node.id} scene={scene} node={node} />
  ) : (
    <DrawnBy scene={scene} node={node.id} />
  );
}
