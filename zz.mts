import { brief } from "./app/core/testing/briefs.ts";
import { makePlan } from "./app/core/plan/plan.ts";
import { a1 } from "./app/core/testing/worlds.ts";
for (let n=0;n<241;n++){ const p=makePlan(brief(n),null,true); for(const x of p.placed) for(const r of x.needs) if(r.state==="lift" && r.reopens===null && r.closes!==null) { console.log(n,p.context.route!.id,x.step.id,p.context.paint(r.productId)?.finish.id,r.opens,r.closes,r.reopens, x.start); } }
console.log(makePlan(a1({ products: a1().products.map((x) => (x.id === "clear" ? { ...x, finish: "spray-enamel" as const } : x)) })).missing, makePlan(a1()).placed.map(x=>x.step.id).join(" "));
