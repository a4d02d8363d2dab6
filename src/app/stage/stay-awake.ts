/** Keeps the display awake while this page is in sight: one that goes to sleep in the middle of a show is dark, whatever is drawn. */
export function stayAwake(): void {
  const ask = (): void => {
    if (document.visibilityState === 'visible')
      void navigator.wakeLock?.request('screen').catch(() => undefined);
  };
  document.addEventListener('visibilitychange', ask);
  ask();
}
