import { create } from 'zustand';
import { persist } from 'zustand/middleware';

/** Sizes of all text and what is sized by it, in percent. */
const textSizes = [100, 115, 130, 150, 175, 200] as const;

/** How large text is drawn, in percent; kept in this browser. */
export const textSize = create<{ percent: number }>()(
  persist(() => ({ percent: 100 }), { name: 'pyrvel-text-size' }),
);

const apply = ({ percent }: { percent: number }): void => {
  // Everything of the interface is measured in rem.
  const page = document.documentElement;
  page.style.fontSize = percent === 100 ? '' : `${percent}%`;
  page.toggleAttribute('data-large-text', percent > 115);
};

/** Has the page follow the size, from now on. */
export function keepTextSize(): void {
  apply(textSize.getState());
  textSize.subscribe(apply);
}

/** One size larger (1) or smaller (-1), as far as there are any. */
export function stepTextSize(by: 1 | -1): void {
  const { percent } = textSize.getState();
  const next = textSizes[textSizes.indexOf(percent as (typeof textSizes)[number]) + by] as number | undefined;
  if (next !== undefined) textSize.setState({ percent: next });
}
