import { ChevronDown, ChevronUp } from 'lucide-react';
import { lazy, Suspense } from 'react';
import type { ControlSpec } from '../../../core/kind/controls';
import { kindOf, type Kind } from '../../../core/kind/kind';
import type { Scene } from '../../../core/document/types';
import { catalogue } from '../../../nodes/catalogue';
import { commandOf, runCommand, titleOf } from '../../commands/registry';
import { sessionStore, useSession } from '../../data/session';
import { benchNodeOf } from './bench-node';
import { NodeOutput } from './node-output';

const CodeBench = lazy(() => import('./code-bench'));
const CurveBench = lazy(() => import('./curve-bench'));

const tabWords = { output: 'Output', curves: 'Curves', code: 'Code', shader: 'Shader' } as const;

/** What the bench can show of a node. */
function tabsOf(kind: Kind | undefined): (keyof typeof tabWords)[] {
  const has = (wanted: ControlSpec['type']): boolean =>
    Object.values(kind?.controls ?? {}).some(({ type }) => type === wanted);
  const tabs: (keyof typeof tabWords)[] = ['output'];
  if (has('curves')) tabs.push('curves');
  if (has('code')) tabs.push('code');
  if (kind?.output === 'image') tabs.push('shader');
  return tabs;
}

/** What flows out of the chosen node: pixels, lanes or points. */
export function Bench({ scene }: { scene: Scene }) {
  const { selection, benchOpen, benchTab } = useSession();
  const node = scene.nodes[benchNodeOf(scene, selection) ?? ''];
  const kind = node && kindOf(catalogue, node);
  const tabs = tabsOf(kind);
  const tab = tabs.includes(benchTab) ? benchTab : 'output';
  return (
    <section aria-label="Bench" className="panel flex h-full flex-col" data-testid="bench">
      <div className="flex h-8 shrink-0 items-center gap-2 px-3">
        <h2 className="font-semibold">Bench</h2>
        <span className="quiet truncate">
          {node
            ? `${node.name} gives ${kind?.output ?? 'nothing known'}`
            : 'choose a node to see what flows out of it'}
        </span>
        <span className="grow" />
        {benchOpen && tabs.length > 1 && (
          <div role="tablist" className="flex gap-1">
            {tabs.map((name) => (
              <button
                key={name}
                type="button"
                role="tab"
                aria-selected={tab === name}
                className={tab === name ? 'tool text-primary' : 'tool'}
                onClick={() => sessionStore.setState({ benchTab: name })}
              >
                {tabWords[name]}
              </button>
            ))}
          </div>
        )}
        <button
          type="button"
          className="tool"
          aria-label={benchOpen ? 'Fold the bench' : 'Open the bench'}
          title={titleOf(commandOf('view.bench'))}
          onClick={() => runCommand('view.bench')}
        >
          {benchOpen ? <ChevronDown size={14} /> : <ChevronUp size={14} />}
        </button>
      </div>
      {benchOpen && (
        <div className="flex min-h-0 grow">
          {node && (tab === 'code' || tab === 'shader') ? (
            <Suspense fallback={null}>
              <CodeBench scene={scene} node={node} isOwn={tab === 'code'} />
            </Suspense>
          ) : node && kind && tab === 'curves' ? (
            <Suspense fallback={null}>
              <CurveBench key={node.id} scene={scene} node={node} kind={kind} />
            </Suspense>
          ) : node ? (
            <NodeOutput scene={scene} node={node.id} />
          ) : (
            <div className="quiet grid grow place-items-center pb-8">
              Pictures with their pixels, signals as plot and table, points in space.
            </div>
          )}
        </div>
      )}
    </section>
  );
}
