/**
 * Follows how far the GPU has come with the frames it was given, so that frames are left out before work piles up, and
 * measures what single nodes cost where the GPU can tell.
 */
export class GpuClock {
  /** Milliseconds from the start of a frame until it was done, smoothed. Work of others counts: the browser draws the page too. */
  frameMs = 0;
  /** Milliseconds of the GPU that a frame takes by itself, smoothed; 0: not known yet, or the GPU can't tell. */
  private ownMs = 0;
  /** When the last finished frame was found to be done. */
  lastDone = 0;
  /** Frames finished in the last second. */
  perSecond = 0;
  readonly nodeMs: Record<string, number> = {};
  private readonly open: { fence: WebGLSync; start: number }[] = [];
  private finished: number[] = [];
  private readonly timer: { TIME_ELAPSED_EXT: number; GPU_DISJOINT_EXT: number } | null;
  private queries: { node: string; query: WebGLQuery }[] = [];
  private frameQuery: { query: WebGLQuery; isOpen: boolean } | null = null;

  constructor(private readonly gl: WebGL2RenderingContext) {
    this.timer = gl.getExtension('EXT_disjoint_timer_query_webgl2') as GpuClock['timer'];
  }

  /** Looks what is done; to be called at the start of a task, since fences move only between tasks. */
  poll(now: number): void {
    const { gl } = this;
    while (this.open.length) {
      const [first] = this.open;
      if (gl.getSyncParameter(first.fence, gl.SYNC_STATUS) !== gl.SIGNALED) break;
      gl.deleteSync(first.fence);
      this.open.shift();
      const took = now - first.start;
      // Falls quicker than it rises: a frame in which shaders were compiled says little about the next.
      const share = took < this.frameMs ? 0.4 : 0.1;
      this.frameMs = this.frameMs === 0 ? took : this.frameMs + share * (took - this.frameMs);
      this.lastDone = now;
      this.finished.push(now);
    }
    this.finished = this.finished.filter((at) => now - at < 1000);
    this.perSecond = this.finished.length;
    this.collectFrame();
    this.collect();
  }

  /**
   * What a frame costs: the GPU's own time where it can tell, else the time until it was done. How large pictures are drawn and
   * how long the GPU rests goes by it: a page that is slow to paint must not make pictures small.
   */
  get costMs(): number {
    return this.ownMs || this.frameMs;
  }

  /** Begins to measure a frame, unless the last answer is still out or single nodes are measured in this one. */
  beginFrame(measuresNodes: boolean): void {
    if (!this.timer || this.frameQuery || measuresNodes) return;
    const query = this.gl.createQuery();
    if (!query) return;
    this.gl.beginQuery(this.timer.TIME_ELAPSED_EXT, query);
    this.frameQuery = { query, isOpen: true };
  }

  endFrame(): void {
    if (!this.timer || !this.frameQuery?.isOpen) return;
    this.gl.endQuery(this.timer.TIME_ELAPSED_EXT);
    this.frameQuery.isOpen = false;
  }

  /** Frames given to the GPU and not done. */
  get behind(): number {
    return this.open.length;
  }

  /** A frame in which the GPU had nothing to do. */
  markStill(now: number): void {
    this.finished.push(now);
    this.lastDone = now;
  }

  mark(start: number): void {
    const { gl } = this;
    const fence = gl.fenceSync(gl.SYNC_GPU_COMMANDS_COMPLETE, 0);
    gl.flush();
    if (fence) this.open.push({ fence, start });
  }

  /** Forgets the times of single nodes: another scene is looked at, whose nodes may have the same ids. */
  forgetNodes(): void {
    for (const { query } of this.queries) this.gl.deleteQuery(query);
    this.queries = [];
    for (const node of Object.keys(this.nodeMs)) delete this.nodeMs[node];
  }

  /** Whether nothing is being measured, so that the next frame may be. */
  get canMeasure(): boolean {
    return this.timer !== null && this.queries.length === 0;
  }

  measure(node: string, draw: () => void): void {
    const query = this.timer && this.gl.createQuery();
    if (!query || !this.timer) {
      draw();
      return;
    }
    this.gl.beginQuery(this.timer.TIME_ELAPSED_EXT, query);
    draw();
    this.gl.endQuery(this.timer.TIME_ELAPSED_EXT);
    this.queries.push({ node, query });
  }

  private collectFrame(): void {
    const { gl, timer, frameQuery } = this;
    if (!timer || !frameQuery || !gl.getQueryParameter(frameQuery.query, gl.QUERY_RESULT_AVAILABLE)) return;
    const ms = (gl.getQueryParameter(frameQuery.query, gl.QUERY_RESULT) as number) / 1e6;
    gl.deleteQuery(frameQuery.query);
    this.frameQuery = null;
    if (gl.getParameter(timer.GPU_DISJOINT_EXT) || ms <= 0) return;
    // A frame in which shaders were compiled says little about the next.
    const share = ms < this.ownMs ? 0.4 : 0.15;
    this.ownMs = this.ownMs === 0 ? ms : this.ownMs + share * (ms - this.ownMs);
  }

  private collect(): void {
    const { gl, timer } = this;
    if (!timer || this.queries.length === 0) return;
    const last = this.queries[this.queries.length - 1];
    if (!gl.getQueryParameter(last.query, gl.QUERY_RESULT_AVAILABLE)) return;
    const disjoint = gl.getParameter(timer.GPU_DISJOINT_EXT) as boolean;
    const sums = new Map<string, number>();
    for (const { node, query } of this.queries) {
      const ns = gl.getQueryParameter(query, gl.QUERY_RESULT) as number;
      sums.set(node, (sums.get(node) ?? 0) + ns / 1e6);
      gl.deleteQuery(query);
    }
    this.queries = [];
    if (disjoint) return;
    for (const node of Object.keys(this.nodeMs)) if (!sums.has(node)) delete this.nodeMs[node];
    for (const [node, ms] of sums)
      this.nodeMs[node] = this.nodeMs[node] === undefined ? ms : this.nodeMs[node] * 0.6 + ms * 0.4;
  }
}
