import { useReactFlow } from '@xyflow/react';
import { useCallback, useState, type RefObject } from 'react';
import { kindOf, type Kind } from '../../core/kind/kind';
import { addNode, connect } from '../../core/show/edit';
import { freePlace } from '../../core/show/free-place';
import type { ModulePack } from '../../core/show/module-pack';
import type { Scene } from '../../core/document/types';
import { catalogue } from '../../nodes/catalogue';
import { choose } from '../data/session';
import { noteAdded } from '../data/used-kinds';
import { bringModules, editPatch, giveFilesOf } from '../actions/module-actions';
import { moduleIdOf } from '../../core/module/module-kind';
import { moduleAt } from '../../core/module/open-place';
import { catalogueWith } from '../../core/module/show-catalogue';
import { refuseInItself } from '../../core/show/edit-module';
import { fittingPort, type AddRequest } from './add-request';
import { faceHeight, faceWidth } from './live-layout';
import type { CardNode, WireEdge } from './flow-model';

/** Adding nodes: where Add was asked for, and what it adds. */
export function useAdding(scene: Scene, selection: readonly string[], box: RefObject<HTMLDivElement | null>) {
  const flow = useReactFlow<CardNode, WireEdge>();
  const [adding, setAdding] = useState<AddRequest | null>(null);
  const add = (kind: Kind, packs: readonly ModulePack[]): void => {
    const request = adding!;
    setAdding(null);
    const id = editPatch(scene.id, (show, draft) => {
      const module = moduleIdOf(kind.id);
      bringModules(show, packs, scene.id);
      if (module !== null) refuseInItself(show, module, moduleAt(show, scene.id)?.id ?? null);
      const known = module === null ? catalogue : catalogueWith(catalogue, show.modules);
      const fresh = addNode(draft, known, kind.id, [Math.round(request.at[0]), Math.round(request.at[1])]);
      const port = fittingPort(kind, request.wire);
      if (request.wire && port) {
        if (request.wire.end === 'source')
          connect(draft, known, request.wire.node, fresh, port, request.wire.output);
        else connect(draft, known, fresh, request.wire.node, request.wire.port);
      }
      return fresh;
    });
    if (id) {
      giveFilesOf(packs);
      noteAdded(kind.id);
      choose([id]);
      bringIntoSight(request.at);
    }
    box.current?.focus();
  };

  /** Moves the view if a card that was added would stand outside it. */
  const bringIntoSight = ([x, y]: readonly [number, number]): void => {
    const view = box.current!.getBoundingClientRect();
    const from = flow.flowToScreenPosition({ x, y });
    const to = flow.flowToScreenPosition({ x: x + faceWidth, y: y + faceHeight });
    const seen = from.x >= view.left && from.y >= view.top && to.x <= view.right && to.y <= view.bottom;
    if (!seen)
      void flow.setCenter(x + faceWidth / 2, y + faceHeight / 2, { zoom: flow.getZoom(), duration: 200 });
  };

  const openAdd = useCallback(
    (x?: number, y?: number) => {
      const bounds = box.current!.getBoundingClientRect();
      const chosen = selection.length === 1 ? scene.nodes[selection[0]] : undefined;
      // Without a place, a new card stands beside the chosen one, so that it is found where one works; before Scene Out, as
      // nothing comes after it.
      if (x === undefined && chosen) {
        const kind = kindOf(catalogue, chosen);
        const aside = kind?.output === 'image' && kind.isSceneOut ? -190 : 190;
        setAdding({ at: freePlace(scene, [chosen.place[0] + aside, chosen.place[1] + 10]), wire: null });
      } else {
        const at = flow.screenToFlowPosition({
          x: x ?? bounds.left + bounds.width / 2 - 76,
          y: y ?? bounds.top + bounds.height / 2 - 50,
        });
        setAdding({ at: x === undefined ? freePlace(scene, [at.x, at.y]) : [at.x, at.y], wire: null });
      }
    },
    [flow, scene, selection, box],
  );

  return { adding, setAdding, openAdd, add };
}
