/**
 * Strongly connected components of a directed graph, each after all components that can be reached from it. Walks
 * with a stack of its own: linear in nodes and edges, however long a chain is.
 *
 * Source: Tarjan, "Depth-first search and linear graph algorithms", SIAM Journal on Computing 1 (1972).
 */
export function componentsOf(
  nodes: Iterable<string>,
  nextOf: (node: string) => Iterable<string>,
): string[][] {
  const components: string[][] = [];
  const index = new Map<string, number>();
  const low = new Map<string, number>();
  const open: string[] = [];
  const isOpen = new Set<string>();
  const walk: { node: string; next: Iterator<string> }[] = [];
  const enter = (node: string): void => {
    low.set(node, index.size);
    index.set(node, index.size);
    open.push(node);
    isOpen.add(node);
    walk.push({ node, next: nextOf(node)[Symbol.iterator]() });
  };
  const lower = (node: string, to: number): void => void (to < low.get(node)! && low.set(node, to));
  for (const root of nodes) {
    if (index.has(root)) continue;
    enter(root);
    while (walk.length) {
      const { node, next } = walk[walk.length - 1];
      const step = next.next();
      if (!step.done) {
        if (!index.has(step.value)) enter(step.value);
        else if (isOpen.has(step.value)) lower(node, index.get(step.value)!);
        continue;
      }
      walk.pop();
      if (walk.length) lower(walk[walk.length - 1].node, low.get(node)!);
      if (low.get(node) !== index.get(node)) continue;
      const component = open.splice(open.lastIndexOf(node));
      for (const member of component) isOpen.delete(member);
      components.push(component);
    }
  }
  return components;
}
