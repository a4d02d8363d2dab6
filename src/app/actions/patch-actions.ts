/** What commands can ask of the patch that is shown. */
interface PatchActions {
  add(): void;
  tidy(): void;
  fit(): void;
  find(): void;
  /** Asks what a node is to be wired into. */
  wire(node: string): void;
  /** Where something of the size of a note stands in the middle of what is in sight. */
  middle(): [number, number];
}

/** The patch that is shown; null while there is none. */
export const patchActions: { current: PatchActions | null } = { current: null };

/** Offers what a patch can do while it is shown; gives what ends the offer. */
export function offerPatch(actions: PatchActions): () => void {
  patchActions.current = actions;
  return () => {
    if (patchActions.current === actions) patchActions.current = null;
  };
}
