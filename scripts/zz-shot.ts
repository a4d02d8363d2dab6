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
  await desk.click('[data-scene="Queen Pulse"]');
  await wait(6000);
  const names = await desk.driver.executeScript(`return [...document.querySelectorAll('[data-node]')].map(e=>e.dataset.node)`);
  console.log(names);
  await desk.choose('Comb Ring');
  for (const n of ['Comb Line','Beads','Pollen','One Life','Six Lives'])
    await desk.driver.actions().keyDown(Key.SHIFT).click(await desk.find(`[data-node="${n}"]`)).keyUp(Key.SHIFT).perform();
  await desk.chord(Key.CONTROL, 'g');
  await wait(4000);
  await shot('m1');
  await desk.driver.actions().keyDown(Key.ALT).sendKeys(Key.ARROW_DOWN).keyUp(Key.ALT).perform();
  await wait(5000);
  await shot('m2');
  await desk.choose('Comb Ring');
  await wait(2000);
  await desk.click('[aria-label="Bring Size out"]');
  await wait(1000);
  await shot('m3');
  await desk.chooseNothing();
  await wait(1000);
  await desk.click('[aria-label="More of Size"]');
  await wait(500);
  await shot('m4');
  await desk.driver.actions().keyDown(Key.ALT).sendKeys(Key.ARROW_UP).keyUp(Key.ALT).perform();
  await wait(3000);
  await shot('m5');
} finally { await desk.close(); }
}
void main();
