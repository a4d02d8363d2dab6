import { Gpu } from '../gpu';
import { scenesPage } from './scenes';

/**
 * The page of `npm run bench -- --against` in the revision that is compared with, put in the place of its bench: nothing but
 * scenes, which need only what every version of the engine has.
 */
(window as unknown as { pyrvelBench: object }).pyrvelBench = { names: [], ...scenesPage(new Gpu()) };
