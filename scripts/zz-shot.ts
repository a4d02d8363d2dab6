import { writeFileSync } from 'node:fs';
import { Desk } from '../test/desk';
async function main() {
const desk = await Desk.open({ renderer: (process.env.R as never) });
const shot = async (name: string) => { writeFileSync(`/tmp/${name}.png`, Buffer.from(await desk.driver.takeScreenshot(), 'base64')); console.log(name); };
const wait = (ms: number) => new Promise((r) => setTimeout(r, ms));
try {
  await desk.driver.executeScript(`[...document.querySelectorAll('button')].find(b => b.textContent.includes('New show')).click()`);
  await desk.find('[data-testid="starts"]');
  await wait(15000);
  await shot('st1');
  await desk.click('[data-start="light-wall"]');
  await wait(5000);
  await shot('st2');
} finally { await desk.close(); }
}
void main();
