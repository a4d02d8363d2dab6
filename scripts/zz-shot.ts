import { writeFileSync } from 'node:fs';
import { Key } from 'selenium-webdriver';
import { Sketch } from '../demo/sketch';
import { Desk, smallShow } from '../test/desk';
async function main() {
const desk = await Desk.open({ renderer: (process.env.R as never) });
const shot = async (name: string) => { writeFileSync(`/tmp/${name}.png`, Buffer.from(await desk.driver.takeScreenshot(), 'base64')); console.log(name); };
const wait = (ms: number) => new Promise((r) => setTimeout(r, ms));
try {
    const show = smallShow('Framed');
    const s = new Sketch('s1', 'Scene 1', [500, 0]);
    s.add('noise', 'Inside', [0, 0]);
    s.add('noise', 'Outside', [0, 400]);
    show.scenes = [s.scene];
    await desk.openShow(show);
  await wait(1500);
    await desk.choose('Inside');
    await desk.driver.actions().keyDown(Key.ALT).sendKeys('f').keyUp(Key.ALT).perform();
    await desk.driver.actions().keyDown(Key.ALT).sendKeys('t').keyUp(Key.ALT).perform();
  await wait(1500);
  console.log(await desk.driver.executeScript(`const r=document.querySelector('[data-frame] header').getBoundingClientRect(); const e=document.elementsFromPoint(r.x+r.width/2,r.y+r.height/2); return JSON.stringify([r, e.slice(0,4).map(x=>x.outerHTML.slice(0,150))])`));
  await shot('f1');
} finally { await desk.close(); }
}
void main();
