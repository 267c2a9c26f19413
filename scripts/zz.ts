import fs from 'fs';
import Papa from 'papaparse';
import { diagnoserFor, answer } from '../src/core/diagnose/request';
const b='r1-two-lamp-flasher', d=`/work/shared/boards-bench/running/${b}/`;
const rd=(f:string)=>fs.readFileSync(d+f,'utf8');
const tps=Papa.parse(rd('testpoints.csv'),{header:true,skipEmptyLines:true}).data.map((t:any)=>({name:t.name,node:t.node}));
const nb=Papa.parse(rd('neighbours.csv'),{header:true,skipEmptyLines:true}).data.map((t:any)=>Object.values(t).slice(0,2) as any);
const cases=fs.readFileSync('/work/shared/boards-bench/running.jsonl','utf8').trim().split('\n').map(l=>JSON.parse(l)).filter(c=>c.board===b).slice(0,4);
const c=cases[0];
const req={deck:rd('board.cir'),bom:Papa.parse(rd('bom.csv'),{header:true,skipEmptyLines:true}).data as any,testPoints:tps,neighbours:nb,meter:{inputResistance:1e7,percent:0.5,counts:2,displayCounts:4000,acResponse:c.acResponse},run:JSON.parse(rd('run.json')),readings:c.readings};
let t=performance.now();
const dg=diagnoserFor(req as any); console.log('made',performance.now()-t,dg.faultCount); t=performance.now();
dg.prepare((p)=>{ if(Math.random()<0.2)console.log(p.toFixed(2),(performance.now()-t).toFixed(0))}); console.log('prepared',performance.now()-t);
for(const k of cases){ t=performance.now(); const a=answer(dg,{...req,readings:k.readings,observations:k.observations} as any,{id:'',...req} as any); console.log(k.id,JSON.stringify(k.fault),a.unexplained.toFixed(3),a.suspects.slice(0,3).map(s=>JSON.stringify(s)).join(' '),(performance.now()-t).toFixed(0)+'ms'); }
