import { openStage } from '../e2e/stage.ts';
const stage = await openStage();
const page = await stage.enter('mara');
await page.goto('/songs'); await page.waitForLoadState('networkidle');
await page.locator('main a').first().click();
await page.getByRole('button', { name: 'Bring in' }).click();
for (const f of ['Copper Kettle Reel.musicxml','Copper Kettle Reel.mid','Copper Kettle Reel.txt','Copper Kettle Reel.shorthand.txt']) {
  await page.getByRole('dialog').locator('input[type=file]').setInputFiles('/tmp/shots/' + f);
  await page.getByRole('list', { name: 'Phrases' }).waitFor();
  await page.waitForTimeout(500);
  console.log(f, (await page.getByRole('list', { name: 'Phrases' }).getByRole('listitem').count()));
  if (f.endsWith('xml')) await page.screenshot({ path: '/tmp/shots/b1.png' });
}
await page.getByRole('button', { name: /^Bring in / }).click();
await page.getByText(/brought in/).waitFor();
await page.screenshot({ path: '/tmp/shots/b2.png' });
await page.getByRole('button', { name: 'Undo' }).click();
await page.waitForTimeout(800);
await page.screenshot({ path: '/tmp/shots/b3.png' });
await stage.close();
