import "reflect-metadata";
import { brief } from "../e2e/support/briefs";
import { makePlan } from "../app/core/plan/plan";
import { difference, linear } from "../app/core/film/colour";
import { shown, zoneOf } from "../app/core/piece/state";
import { BURNT } from "../app/core/catalogue/substrates";
const seen = new Map<string,string[]>();
const N=Number(process.argv[2]??200);
for (let n=0;n<N;n++){ const w=brief(n); let p; try { p=makePlan(w);} catch(e){ console.log(w.job.route, (e as Error).stack?.split("\n").slice(0,4).join("|")); continue; }
 const add=(k:string,s:string)=>{ const key=w.job.route+" | "+k; (seen.get(key)??seen.set(key,[]).get(key)!).push(w.job.id+" "+w.job.substrate.id+" "+s); };
 for(const m of p.missing) add("lacks "+m.what,m.say);
 for(const s of p.snags) if(["stop","never"].includes(s.severity)) add("rule "+s.rule,s.why); else if (process.argv[3]) add(s.severity+" "+s.rule,s.why);
 for(const x of p.placed) if(x.refused) add("refused "+x.step.id,x.refused);
 if(p.ready===null) add("stuck",String(p.stuck));
 const end=p.placed[p.placed.length-1]?.after;
 if(!p.missing.length) for(const z of p.context.filled){ const want=p.context.route!.shows==="mark"?BURNT:p.context.paintOf(z.productId!).product.colour; const d=difference(shown(end,zoneOf(end,z.id),p.context.substrate.colour,p.context.paintOf),linear(want)); if(d>4.01) add("off",z.productId+" "+d.toFixed(1)); }
 if(end.zones.some(z=>z.mask)) add("mask left","");
 if(end.zones.some(z=>z.films.some(f=>f.phase==="loose"||f.torn||f.wrinkled))) add("loose/torn/wrinkled",JSON.stringify(end.zones.flatMap(z=>z.films.filter(f=>f.phase==="loose"||f.torn||f.wrinkled).map(f=>f.step+f.phase+f.torn+f.wrinkled))));
}
for(const [k,v] of [...seen].sort()) console.log(k,"x"+v.length, v[0].slice(0,230));
