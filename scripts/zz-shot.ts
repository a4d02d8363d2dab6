import { writeFileSync } from 'node:fs';
import { Desk } from '../test/desk';
const desk = await Desk.open();
const shot = async (n: string) =>
  writeFileSync(`/tmp/shot-${n}.png`, Buffer.from(await desk.driver.takeScreenshot(), 'base64'));
try {
  await desk.click('[data-show="Night Apiary"] button');
  await desk.find('[data-testid="patch"]');
  await desk.select('Work size', 'Quarter');
  await desk.click('[data-scene="Glass Leaves"]');
  await desk.click('nav a[href="/wall"]');
  await desk.click('[role="tablist"][aria-label="Plans"] [role="tab"]:last-child');
  await desk.until(
    'the room',
    () => desk.seenAt('[data-testid="room"]'),
    (p) => p.lit > 0.01,
  );
  await new Promise((r) => setTimeout(r, 6000));
  await shot('room');
  await desk.click('[aria-label="Where you look from"] button:nth-child(2)');
  await new Promise((r) => setTimeout(r, 4000));
  await shot('room-seat');
  await desk.click('[aria-label="Where you look from"] button:nth-child(3)');
  await desk.click('[data-output-row="Comb"] button');
  await new Promise((r) => setTimeout(r, 4000));
  await shot('room-side');
} finally {
  const logs = await desk.driver
    .manage()
    .logs()
    .get('browser')
    .catch(() => []);
  for (const l of logs) console.log(l.message.slice(0, 400));
  await desk.close();
}
