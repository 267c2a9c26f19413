import fs from 'fs';
import Papa from 'papaparse';
import { diagnoserFor } from '../src/core/diagnose/request';
import * as T from '../src/core/circuit/transient';
for (const b of ['r1-two-lamp-flasher']) {
const d=`/work/shared/boards-bench/running/${b}/`;
const rd=(f:string)=>fs.readFileSync(d+f,'utf8');
const tps=Papa.parse(rd('testpoints.csv'),{header:true,skipEmptyLines:true}).data.map((t:any)=>({name:t.name,node:t.node}));
const nb=Papa.parse(rd('neighbours.csv'),{header:true,skipEmptyLines:true}).data.map((t:any)=>Object.values(t).slice(0,2) as any);
const req={deck:rd('board.cir'),bom:Papa.parse(rd('bom.csv'),{header:true,skipEmptyLines:true}).data as any,testPoints:tps,neighbours:nb,meter:{inputResistance:1e7,percent:0.5,counts:2,displayCounts:4000,acResponse:'average'},run:JSON.parse(rd('run.json')),readings:[]};
const dg:any=diagnoserFor(req as any);
const ts:[number,string][]=[];
const t00=performance.now();
for(const c of dg.candidates){const t=performance.now(); dg.sample(c,8); ts.push([performance.now()-t,JSON.stringify(c.faults[0]??'healthy')]);}
console.log(b,'total',performance.now()-t00); ts.sort((a,b)=>b[0]-a[0]); console.log(ts.slice(0,12).map(x=>x[0].toFixed(0)+' '+x[1]).join('\n')); console.log('median',ts[ts.length>>1]![0]);
}
