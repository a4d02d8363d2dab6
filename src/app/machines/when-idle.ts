/**
 * Runs through steps, one at a time whenever the page has time; gives what ends that. `latestMs`: milliseconds after which the next step is taken in
 * any case.
 */
export function runWhenIdle(steps: Iterator<unknown>, latestMs: number): () => void {
  let isEnded = false;
  const wait = (): void => {
    // Not every browser says when it has time.
    if (typeof requestIdleCallback === 'undefined') setTimeout(step);
    else requestIdleCallback(step, { timeout: latestMs });
  };
  const step = (): void => {
    if (!isEnded && !steps.next().done) wait();
  };
  wait();
  return () => (isEnded = true);
}
