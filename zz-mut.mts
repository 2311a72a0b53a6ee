import { readFileSync, writeFileSync, readdirSync, rmSync } from "node:fs";
import { commonTokens } from "@stryker-mutator/api/plugin";
import { createInstrumenter } from "@stryker-mutator/instrumenter";
import { createInjector } from "typed-inject";
const rows: any[] = [];
const g = globalThis as any;
const t = Object.assign(() => {}, { each: (r: any[]) => { rows.push(r); return () => {}; } });
g.test = t; g.it = t; g.describe = Object.assign((_n: string, f: () => void) => f(), { each: () => () => {} }); g.expect = () => ({}); g.beforeAll = () => {}; g.beforeEach=()=>{}; g.afterEach=()=>{}; g.jest = {};
await import("./app/core/judge/rules.test.ts");
const { makePlan } = await import("./app/core/plan/plan.ts");
const { odd, tappedOdd, near } = await import("./app/core/testing/odd.ts");
const { generate } = await import("./app/core/plan/generate.ts");
const { context } = await import("./app/core/process/context.ts");
const worlds: any[] = [];
for (const r of rows) for (const row of r) for (const x of [row].flat()) {
  if (x && typeof x === "object" && x.trips) worlds.push(x.trips(), x.misses());
  else if (typeof x === "function") { try { const w = x(); if (w?.job) worlds.push(w); } catch {} }
}
console.log("case worlds", worlds.length);
{ let i = 0; const K = Number(process.env.NEAR ?? 5); for (const r of [...rows]) for (const row of r) for (const c of [row].flat()) if (c && typeof c === "object" && c.trips) { [c.trips, c.misses, c.trips, c.trips, c.misses].slice(0,K).forEach((from: any, k: number) => { worlds.push(near(from(), i * 5 + k, (x: any) => generate(context(x)).steps)); }); i++; } }
const N = Number(process.env.ODD ?? 400);
for (let n = 0; n < N; n++) {
  let w = odd(n, (x: any) => generate(context(x)).steps);
  if (n % 4 === 3) w = tappedOdd(w, n, makePlan(w, null, true).placed.map((p: any) => ({ id: p.step.id, start: p.start, end: p.end })));
  worlds.push(w);
}
const plans = worlds.map((w) => makePlan(w, null, true));
console.log("plans", plans.length);
const said = (rule: any): string => {
  const out: string[] = [];
  for (let i = 0; i < plans.length; i++) {
    let fs: any[];
    try { fs = rule.find(plans[i]); } catch (e) { out.push(`${i} throws`); continue; }
    for (const s of fs) out.push(JSON.stringify([i, s.severity, s.step, s.zone, s.why, s.numbers, s.fixes.map((f: any) => { try { const a = f.apply(worlds[i]); return [f.id, f.label, a.job === worlds[i].job ? "" : JSON.stringify([a.job.edits, a.job.choices, a.job.route]), a.machines===worlds[i].machines?"":JSON.stringify(a.machines), a.shop===worlds[i].shop?"":JSON.stringify(a.shop), a.products===worlds[i].products?"":JSON.stringify(a.products.map((p:any)=>p.id))]; } catch { return "throws"; } })]));
  }
  return out.join("\n");
};
const quiet = () => {}; const LOG: any = { trace: quiet, debug: quiet, info: quiet, warn: quiet, error: quiet, fatal: quiet };
for (const l of ["Trace","Debug","Info","Warn","Error","Fatal"]) LOG[`is${l}Enabled`] = () => false;
const ins = createInjector().provideValue(commonTokens.logger, LOG).provideValue(commonTokens.getLogger, () => LOG).provideValue(commonTokens.options, {} as any).injectFunction(createInstrumenter as any) as any;
const DIR = "app/core/judge/rules";
const only = process.argv[2];
const LEFT = ["StringLiteral", "ObjectLiteral", "BlockStatement", "ArrayDeclaration", "Regex"];
let killed = 0, all = 0;
const ruleOf = (m: any) => Object.values(m).find((x: any) => x && typeof x.find === "function") as any;
for (const f of readdirSync(DIR).filter((f) => /^\d/.test(f) && (!only || f.startsWith(only)))) {
  const text = readFileSync(`${DIR}/${f}`, "utf8");
  const base = said(ruleOf(await import(`./${DIR}/${f}`)));
  const found = await ins.instrument([{ name: f, content: text, mutate: true }], { excludedMutations: [], ignorers: [], plugins: null, noHeader: false });
  const lines = text.split("\n"); const at = (p: any) => lines.slice(0, p.line).reduce((a, l) => a + l.length + 1, 0) + p.column;
  const muts = found.mutants.filter((m: any) => !LEFT.includes(m.mutatorName)).map((m: any) => ({ line: m.location.start.line + 1, from: at(m.location.start), to: at(m.location.end), is: m.replacement, by: m.mutatorName }));
  for (const m of text.matchAll(/(?<![\w.$"'`-])(\d+(?:\.\d+)?)(?![\w"'`-])/g)) { const v = Number(m[1]); if ([0,1].includes(v)) continue; const line = text.slice(0, m.index).split("\n").length; if (/import|^\s*(\/?\*|\/\/)|id: \d|title/.test(lines[line-1])) continue; muts.push({ line, from: m.index!, to: m.index! + m[1].length, is: String(Number.isInteger(v) && v < 20 ? v + 1 : Number((v * 1.1).toPrecision(12))), by: "number" }); }
  let i = 0;
  for (const m of muts) { if (process.env.SHARE && Math.random() > Number(process.env.SHARE)) continue; if (/\+\+|--|n - 1/.test(text.slice(m.from, m.to))) continue; if (f.startsWith("69") && m.by !== "number" && m.line === 22) continue;
    const name = `zz-${f.replace(/\W/g, "")}-${i++}.ts`;
    writeFileSync(`${DIR}/${name}`, text.slice(0, m.from) + m.is + text.slice(m.to));
    let got: string;
    try { got = said(ruleOf(await import(`./${DIR}/${name}`))); } catch { got = "broken"; }
    rmSync(`${DIR}/${name}`);
    all++;
    if (got !== base) killed++;
    else console.log(`${f}:${m.line} ${m.by} «${text.slice(m.from, m.to).replace(/\s+/g, " ").slice(0, 60)}» → «${m.is.replace(/\s+/g, " ").slice(0, 60)}»`);
  }
}
console.log(`killed ${killed} of ${all}: ${(100 * killed / all).toFixed(1)} %`);
