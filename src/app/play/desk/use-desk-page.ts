import type { DeskPage } from '../../../core/document/types';
import { playSession } from '../../data/play-session';
import { useShow } from '../../data/show-store';
import { liveStore } from '../../engine/live';

/** Pages that are at hand: those of the whole show, and of the scene that is on air or comes. */
function pagesAtHand(pages: readonly DeskPage[], onAir: string): DeskPage[] {
  return [...pages.filter(({ scene }) => scene === onAir), ...pages.filter(({ scene }) => scene === null)];
}

/** The pages of the desk: all, those at hand, and the one that is shown. */
export function useDeskPage(): {
  pages: readonly DeskPage[];
  atHand: readonly DeskPage[];
  page: DeskPage | undefined;
} {
  const pages = useShow((show) => show.desk);
  const onAir = liveStore((s) => s.program.incoming ?? s.program.program);
  const { page: wanted, arranging } = playSession();
  const atHand = arranging ? pages : pagesAtHand(pages, onAir);
  const page =
    atHand.find(({ id }) => id === wanted) ?? atHand.find(({ scene }) => scene === onAir) ?? atHand[0];
  return { pages, atHand, page };
}
