import { lazy, Suspense } from 'react';
import { playSession } from '../data/play-session';
import { dropFocus } from '../parts/live-button';
import { BindingList } from './binding-list';
import { CueList } from './cues/cue-list';
import { DeskPanel } from './desk/desk-panel';
import { Masters } from './masters';
import { Monitors } from './monitors';
import { SceneButtons } from './scene-buttons';

const InvitationDialog = lazy(() => import('../machines/invitation-dialog'));

/** Perform: what is on stage and what comes, the desk, the scenes, the running order. */
export function PlayView() {
  const binding = playSession((s) => s.binding);
  const inviting = playSession((s) => s.inviting);
  return (
    <main className="flex h-full gap-3 overflow-auto p-3" onClick={dropFocus}>
      <Monitors />
      <div className="flex min-w-[38rem] grow flex-col gap-2">
        <DeskPanel />
        <SceneButtons />
      </div>
      <div className="flex w-64 shrink-0 flex-col gap-2">
        {binding ? <BindingList /> : <CueList />}
        <Masters />
      </div>
      <Suspense fallback={null}>
        {inviting && <InvitationDialog onClose={() => playSession.setState({ inviting: false })} />}
      </Suspense>
    </main>
  );
}
