import { create } from 'zustand';

/** The node under the pointer while Alt is held: the monitor shows the scene without it. */
export const useAltNode = create<{ node: string | null }>()(() => ({ node: null }));

let hovered: string | null = null;
let alt = false;

const settle = (): void => {
  const node = alt ? hovered : null;
  if (useAltNode.getState().node !== node) useAltNode.setState({ node });
};

export function hoverNode(node: string | null): void {
  hovered = node;
  settle();
}

window.addEventListener('keydown', (event) => {
  if (event.key !== 'Alt') return;
  // Alt alone would open the browser's menu on some desks.
  event.preventDefault();
  alt = true;
  settle();
});
window.addEventListener('keyup', (event) => {
  if (event.key !== 'Alt') return;
  alt = false;
  settle();
});
window.addEventListener('blur', () => {
  alt = false;
  settle();
});
