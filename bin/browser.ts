import { Builder, type WebDriver } from 'selenium-webdriver';
import chrome from 'selenium-webdriver/chrome.js';

/** Starts headless Chromium with the software renderer, as the tests, the bench and the command line use it. */
export async function startBrowser(options: { width?: number; height?: number } = {}): Promise<WebDriver> {
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
  flags.setBinaryPath(process.env.PYRVEL_CHROMIUM ?? '/usr/bin/chromium');
  return new Builder()
    .forBrowser('chrome')
    .setChromeOptions(flags)
    .setChromeService(new chrome.ServiceBuilder(process.env.PYRVEL_CHROMEDRIVER ?? '/usr/bin/chromedriver'))
    .build();
}
