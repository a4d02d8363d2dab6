let router: { navigate(path: string): unknown } | null = null;

/** Says who changes the view; called once, by the page. */
export function setRouter(one: typeof router): void {
  router = one;
}

/** Shows another view. */
export const navigate = (path: string): void => void router?.navigate(path);
