/** Shares of the way that count as the same place. */
const sameShare = 0.02;

/**
 * Soft takeover: a fader that stands elsewhere than what it is bound to moves nothing until it has come there, so that nothing jumps.
 */
export class Takeover {
  private readonly sources = new Map<string, { share: number; set: number | null }>();

  /** Whether a source that now stands at `share` moves a control that stands at `now`, both 0..1. */
  takes(source: string, share: number, now: number): boolean {
    const known = this.sources.get(source);
    // It still has hold of it unless somebody else has moved it meanwhile.
    const holds = known?.set != null && Math.abs(known.set - now) < sameShare;
    const meets =
      Math.abs(share - now) < sameShare ||
      (known !== undefined && Math.min(known.share, share) <= now && now <= Math.max(known.share, share));
    const takes = holds || meets;
    this.sources.set(source, { share, set: takes ? share : null });
    return takes;
  }

  forget(): void {
    this.sources.clear();
  }
}
