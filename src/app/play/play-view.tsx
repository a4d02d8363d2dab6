import { dropFocus } from '../parts/live-button';
import { CueList } from './cues/cue-list';
import { DeskPanel } from './desk/desk-panel';
import { Masters } from './masters';
import { Monitors } from './monitors';
import { SceneButtons } from './scene-buttons';

/** Perform: what is on stage and what comes, the desk, the scenes, the running order. */
export function PlayView() {
  return (
    <main className="flex h-full gap-3 overflow-x-auto p-3" onClick={dropFocus}>
      <Monitors />
      <div className="flex min-w-[38rem] grow flex-col gap-2">
        <DeskPanel />
        <SceneButtons />
      </div>
      <div className="flex w-64 shrink-0 flex-col gap-2">
        <CueList />
        <Masters />
      </div>
    </main>
  );
}
