import { openStage } from '../e2e/stage.ts';
const stage = await openStage();
for (const [w,h,n] of [[1280,800,'a'],[640,400,'b'],[390,800,'c']] as const) {
const p = await stage.enter('mara',{viewport:{width:w,height:h}});
await p.goto('/songs'); await p.getByRole('link', { name: /Slow Tide/ }).first().click(); await p.locator('.cm-content').waitFor(); await p.locator('[data-ready="true"] svg').first().waitFor();
await p.waitForTimeout(1500);
await p.screenshot({path:`/tmp/desk-${n}.png`});
if(n==='c'){ await p.goto('/ledger'); await p.waitForTimeout(1500); await p.getByRole('button',{name:/^Menu/}).click(); await p.waitForTimeout(300); await p.screenshot({path:'/tmp/menu.png'});}
await p.context().close();
}
await stage.close();
