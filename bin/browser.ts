import { Builder, type WebDriver } from 'selenium-webdriver';
import chrome from 'selenium-webdriver/chrome.js';

/** Starts headless Chromium with the software renderer, as the tests, the bench and the command line use it. */
export async function startBrowser(
  options: {
    width?: number;
    height?: number;
    /** A microphone that beeps and a camera, made up by the browser, which may be used without asking. */
    devices?: boolean;
  } = {},
): Promise<WebDriver> {
  const flags = new chrome.Options();
  flags.addArguments(
    '--headless',
    '--no-sandbox',
    '--use-angle=swiftshader',
    '--enable-unsafe-swiftshader',
    `--window-size=${options.width ?? 1280},${options.height ?? 943}`,
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
    '--disable-popup-blocking',
    '--no-first-run',
  );
  if (options.devices)
    flags.addArguments('--use-fake-device-for-media-stream', '--use-fake-ui-for-media-stream');
  flags.setBinaryPath(process.env.PYRVEL_CHROMIUM ?? '/usr/bin/chromium');
  return new Builder()
    .forBrowser('chrome')
    .setChromeOptions(flags)
    .setChromeService(new chrome.ServiceBuilder(process.env.PYRVEL_CHROMEDRIVER ?? '/usr/bin/chromedriver'))
    .build();
}
