import { writeFileSync } from 'node:fs';
import { Key } from 'selenium-webdriver';
import { Desk } from '../test/desk';
async function main() {
const desk = await Desk.open({ renderer: (process.env.R as never) });
const shot = async (name: string) => { writeFileSync(`/tmp/${name}.png`, Buffer.from(await desk.driver.takeScreenshot(), 'base64')); console.log(name); };
const wait = (ms: number) => new Promise((r) => setTimeout(r, ms));
try {
  await desk.click('[data-show="Night Apiary"] button');
  await desk.find('[data-testid="patch"]');
  await desk.select('Work size', 'Quarter');
  await desk.click('[data-scene="Two Bees"]');
  await wait(4000);
  await desk.driver.actions().keyDown(Key.ALT).sendKeys('v').keyUp(Key.ALT).perform();
  await wait(14000);
  await shot('v1');
  await desk.click('[aria-label="Take variation 5"]');
  await wait(9000);
  await shot('v2');
} finally { await desk.close(); }
}
void main();
