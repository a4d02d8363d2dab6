import { Builder, type WebDriver } from 'selenium-webdriver';
import chrome from 'selenium-webdriver/chrome.js';
import { UsageError } from './arguments';

/**
 * What draws in headless Chromium: `system` is the system's OpenGL (a graphics card, or Mesa's llvmpipe, which draws our
 * scenes two to three times quicker than SwiftShader); `software` is what a visitor without a card gets: SwiftShader draws the
 * scenes, and the processor puts the page together; with `swiftshader`, SwiftShader does that too, as if it were a card.
 */
export type Renderer = 'system' | 'software' | 'swiftshader';

const flagsOf: Record<Renderer, readonly string[]> = {
  system: ['--use-angle=gl-egl', '--ignore-gpu-blocklist'],
  software: ['--use-angle=swiftshader-webgl', '--enable-unsafe-swiftshader'],
  swiftshader: ['--use-angle=swiftshader', '--enable-unsafe-swiftshader'],
};

/** Reads the name of a renderer; undefined stands for the quickest that works. */
export function readRenderer(text: string | undefined): Renderer | undefined {
  if (text === undefined || text in flagsOf) return text as Renderer | undefined;
  throw new UsageError(`There is no renderer “${text}”. Use ${Object.keys(flagsOf).join(', ')}.`);
}

/** The renderer's name for itself; null if it gives no WebGL2. */
export function rendererName(driver: WebDriver): Promise<string | null> {
  return driver.executeScript<string | null>(`
    const gl = document.createElement('canvas').getContext('webgl2');
    const named = gl && gl.getExtension('WEBGL_debug_renderer_info');
    return gl && String(gl.getParameter(named ? named.UNMASKED_RENDERER_WEBGL : gl.RENDERER));`);
}

/** Has a browser do what only its tools can do; gives their answer. */
export const devTools = <T = unknown>(driver: WebDriver, name: string, params: object = {}): Promise<T> =>
  // Its types do not know what Chromium's driver can do beside.
  (
    driver as unknown as { sendAndGetDevToolsCommand(name: string, params: object): Promise<T> }
  ).sendAndGetDevToolsCommand(name, params);

interface BrowserOptions {
  width?: number;
  height?: number;
  /** A microphone that beeps and a camera, made up by the browser, which may be used without asking. */
  devices?: boolean;
  /** Folder in which the browser keeps what it keeps; absent: none that outlives it. */
  profile?: string;
  /** Program that is started; default: what PYRVEL_CHROMIUM names, else Debian's Chromium. */
  binary?: string;
  /** Opens pages whose certificate nobody has signed, as that of a main machine on its network. */
  unsigned?: boolean;
  /** The browser's own pages for looking into it, such as chrome://discards, can be opened. */
  internals?: boolean;
  /** Heap sizes are told exactly, and garbage is collected on demand. */
  precise?: boolean;
  /** The processor puts pages together even where something else draws: small ones are quicker so without a card. */
  plainPages?: boolean;
  /** Default: what PYRVEL_RENDERER names, else the system's OpenGL where it works, else SwiftShader. */
  renderer?: Renderer;
}

function start(renderer: Renderer, options: BrowserOptions): Promise<WebDriver> {
  const flags = new chrome.Options();
  flags.addArguments(
    '--headless',
    '--no-sandbox',
    ...flagsOf[renderer],
    `--window-size=${options.width ?? 1280},${options.height ?? 943}`,
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
    '--disable-popup-blocking',
    '--no-first-run',
  );
  if (options.profile) flags.addArguments(`--user-data-dir=${options.profile}`);
  if (options.unsigned) flags.setAcceptInsecureCerts(true);
  if (options.plainPages) flags.addArguments('--disable-gpu-compositing');
  if (options.precise) flags.addArguments('--enable-precise-memory-info', '--js-flags=--expose-gc');
  if (options.internals) flags.setLocalState({ internal_only_uis_enabled: true });
  if (options.devices)
    flags.addArguments('--use-fake-device-for-media-stream', '--use-fake-ui-for-media-stream');
  flags.setBinaryPath(options.binary ?? process.env.PYRVEL_CHROMIUM ?? '/usr/bin/chromium');
  return new Builder()
    .forBrowser('chrome')
    .setChromeOptions(flags)
    .setChromeService(new chrome.ServiceBuilder(process.env.PYRVEL_CHROMEDRIVER ?? '/usr/bin/chromedriver'))
    .build();
}

/** Whether the system's OpenGL draws here: asked once. */
let systemDraws: boolean | undefined;

/** Starts headless Chromium, as the tests, the bench and the command line use it. */
export async function startBrowser(options: BrowserOptions = {}): Promise<WebDriver> {
  const wanted = options.renderer ?? readRenderer(process.env.PYRVEL_RENDERER);
  if (wanted !== undefined || systemDraws !== undefined)
    return start(wanted ?? (systemDraws ? 'system' : 'swiftshader'), options);
  const driver = await start('system', options);
  systemDraws = (await rendererName(driver)) !== null;
  if (systemDraws) return driver;
  await driver.quit();
  return start('swiftshader', options);
}
