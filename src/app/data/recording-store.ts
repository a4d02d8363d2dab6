import { create } from 'zustand';

/** The live recording that is under way. */
interface Recording {
  job: string;
  name: string;
  /** Milliseconds of the page's clock at which it began. */
  since: number;
  frames: number;
  /** Frames that were left out, since the stage needed the time. */
  dropped: number;
  /** It is being ended: the last pieces are written. */
  isEnding: boolean;
}

export const recordingStore = create<{ recording: Recording | null }>()(() => ({ recording: null }));
