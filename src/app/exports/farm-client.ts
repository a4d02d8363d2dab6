import type { FarmOrderState, FarmPart, FarmState } from '../../core/export/farm';
import type { ExportPlan } from '../../core/export/schedule';
import type { ExportSpec } from '../../core/export/spec';

async function ask(address: string, init?: RequestInit): Promise<Response> {
  let response: Response;
  try {
    response = await fetch(address, init);
  } catch {
    throw new Error('The server does not answer. Start it again, then go on.');
  }
  if (!response.ok) throw new Error(await response.text());
  return response;
}

const asJson = (body: unknown): RequestInit => ({
  method: 'POST',
  headers: { 'content-type': 'application/json' },
  body: JSON.stringify(body),
});
const asBytes = (bytes: Uint8Array<ArrayBuffer>): RequestInit => ({
  method: 'PUT',
  headers: { 'content-type': 'application/octet-stream' },
  body: bytes,
});

/** Whether the server has a farm, and how many workers listen there. */
export const farmState = async (): Promise<FarmState> => (await ask('/farm')).json() as Promise<FarmState>;

/** An export that the server hands to the workers of a farm. */
export class FarmClient {
  private constructor(private readonly address: string) {}

  /** `packed`: the show with its files, as a zip. */
  static async begin(
    spec: ExportSpec,
    plan: ExportPlan,
    packed: Uint8Array<ArrayBuffer>,
  ): Promise<FarmClient> {
    const { order } = (await (await ask('/farm/orders', asJson({ spec, plan }))).json()) as { order: string };
    const client = new FarmClient(`/farm/orders/${order}`);
    try {
      await ask(`${client.address}/show`, asBytes(packed));
    } catch (error) {
      await client.end();
      throw error;
    }
    return client;
  }

  /** Hands a part to whoever is free; `checkpoint`: what it begins from. */
  async add(part: FarmPart, checkpoint: Uint8Array<ArrayBuffer> | null): Promise<void> {
    if (checkpoint) await ask(`${this.address}/checkpoints/${part.checkpoint}`, asBytes(checkpoint));
    await ask(`${this.address}/parts`, asJson(part));
  }

  state = async (): Promise<FarmOrderState> => (await ask(this.address)).json() as Promise<FarmOrderState>;

  piece = async (name: string): Promise<Blob> => (await ask(`${this.address}/pieces/${name}`)).blob();

  end = async (): Promise<void> => void (await fetch(this.address, { method: 'DELETE' }).catch(() => null));
}
