import { open, openSample } from "./e2e/browser.ts";
import { serve } from "./scripts/serve.mjs";
const {server,url}=await serve(0); const o=await open(url); const p=o.page;
await openSample(p);
await p.goto(new URL("jobs/drawer-tags/brief",url).href);
await p.getByLabel("Units of this job").selectOption("inch");
await p.waitForTimeout(800);
await p.screenshot({path:"/tmp/s1.png"});
const seen: Record<string,string[]> = {};
for (const v of ["brief","artwork","route","layers","calendar","bench","wrap-up"]) {
  await p.goto(new URL(`jobs/drawer-tags/${v}`,url).href); await p.waitForTimeout(1200);
  const t = await p.locator("main").innerText();
  seen[v] = [...t.matchAll(/[^\n]{0,40}\d ?(?:mm²?(?![\/\w²])|°C)[^\n]{0,30}/g)].map(m=>m[0]).filter(x=>!/dpi|in\/min|per J/.test(x)).slice(0,12);
  if (v==="layers"||v==="bench") await p.screenshot({path:`/tmp/s-${v}.png`});
}
console.log(JSON.stringify(seen,null,1));
await o.close(); server.close();
