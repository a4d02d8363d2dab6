import type { ModulePack } from '../../core/show/module-pack';
import packs from './shipped.generated.json' with { type: 'json' };

/** The modules that ship, each made of ordinary nodes. */
export const shippedModules = packs as unknown as readonly ModulePack[];
