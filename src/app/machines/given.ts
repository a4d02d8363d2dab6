const storeKey = 'pyrvel.players';

/** Which screen of the wall each player shows is a matter of the machines, not of the show: by machine, the id of its output. */
function read(): Record<string, string> {
  try {
    return JSON.parse(localStorage.getItem(storeKey) ?? '{}') as Record<string, string>;
  } catch {
    return {};
  }
}

/** The screen that a player was given; null: what is on air. */
export const givenTo = (machine: string): string | null => read()[machine] ?? null;

export function keepGiven(machine: string, screen: string | null): void {
  const given = read();
  if (screen === null) delete given[machine];
  else given[machine] = screen;
  localStorage.setItem(storeKey, JSON.stringify(given));
}
