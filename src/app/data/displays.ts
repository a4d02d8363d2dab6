import { create } from 'zustand';

/** A display of this machine. */
export interface Display {
  /** Name and place, by which it is found again. */
  key: string;
  label: string;
  left: number;
  top: number;
  width: number;
  height: number;
}

/** What the Window Management API (W3C) gives of a screen. */
interface ScreenDetailed {
  label: string;
  availLeft: number;
  availTop: number;
  availWidth: number;
  availHeight: number;
  width: number;
  height: number;
}
interface ScreenDetails extends EventTarget {
  screens: readonly ScreenDetailed[];
}
type ManagingWindow = Window & { getScreenDetails?: () => Promise<ScreenDetails> };

const storeKey = 'pyrvel.displays';

/** Which display an output takes is a matter of this machine, not of the show: by output, the key of its display. */
function readChoices(): Record<string, string> {
  try {
    return JSON.parse(localStorage.getItem(storeKey) ?? '{}') as Record<string, string>;
  } catch {
    return {};
  }
}

interface DisplayState {
  /** null: the browser was not asked, or tells nothing. */
  displays: readonly Display[] | null;
  choices: Readonly<Record<string, string>>;
}

export const displayStore = create<DisplayState>()(() => ({ displays: null, choices: readChoices() }));

export const canAskDisplays = (): boolean => 'getScreenDetails' in window;

const asDisplay = (screen: ScreenDetailed, k: number): Display => ({
  key: `${screen.label} ${screen.availLeft},${screen.availTop}`,
  label: screen.label || `Display ${k + 1}`,
  left: screen.availLeft,
  top: screen.availTop,
  width: screen.width,
  height: screen.height,
});

/** Asks the browser for the displays, and follows them as they come and go. Throws if the performer refuses. */
export async function askDisplays(): Promise<void> {
  const details = await (window as ManagingWindow).getScreenDetails?.();
  if (!details) return;
  const read = (): void => displayStore.setState({ displays: details.screens.map(asDisplay) });
  details.addEventListener('screenschange', read);
  read();
}

const placeOf = (show: string, output: string): string => `${show} ${output}`;

/** The key of the display that was chosen for an output; empty: a plain window; undefined: nobody was asked. */
export const choiceOf = (
  { choices }: Pick<DisplayState, 'choices'>,
  show: string,
  output: string,
): string | undefined => choices[placeOf(show, output)];

export const chosenDisplay = (show: string, output: string): string =>
  choiceOf(displayStore.getState(), show, output) ?? '';

export function chooseDisplay(show: string, output: string, key: string): void {
  const choices = { ...displayStore.getState().choices, [placeOf(show, output)]: key };
  displayStore.setState({ choices });
  localStorage.setItem(storeKey, JSON.stringify(choices));
}

/** The display that an output takes; undefined: none was chosen, or it is gone. */
export const displayOf = (show: string, output: string): Display | undefined =>
  displayStore.getState().displays?.find(({ key }) => key === chosenDisplay(show, output));
