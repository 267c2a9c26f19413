/** Command line over the core: `npm run --silent zesty -- <verb> --jsonl`, JSON lines in and out. */
import { createInterface } from 'node:readline';
import { diagnose } from './diagnose';
import { kit } from './kit';
import { decode } from './decode';
import { draft } from './draft';
import { draw } from './draw';
import { functions } from './functions';
import { load } from './load';
import { place } from './place';
import { receive } from './receive';
import { solve } from './solve';
import { trace } from './trace';
import { verdict } from './verdict';
import { windows } from './windows';

export type Request = Readonly<Record<string, unknown>>;
/** Answers one request; throws an Error whose message becomes the answer's `error`. */
export type Verb = (request: Request) => object;

const VERBS: Readonly<Record<string, { run: Verb; about: string }>> = {
  decode: { run: decode, about: 'what a marking or a line of a list says' },
  receive: { run: receive, about: 'which loose piece belongs to which line' },
  verdict: { run: verdict, about: 'conformity of one reading' },
  solve: { run: solve, about: 'operating point of a SPICE deck, or what a meter reads on it' },
  kit: { run: kit, about: 'a kit document: open, edit, undo, merge, view' },
  load: { run: load, about: 'heat, recorded signals, load tests, series lamps, claims and controls' },
  place: { run: place, about: 'places of parts from, or as, a centroid file or a bare-board netlist' },
  trace: { run: trace, about: 'which pads to touch next with a continuity tester, and what differs from the drawing' },
  windows: { run: windows, about: 'where a healthy board reads, for every check of a kit' },
  draft: { run: draft, about: 'a kit from list, circuit, supplies and meter: its stages, checks and windows' },
  draw: { run: draw, about: 'the schematic of a deck, as geometry on a grid' },
  functions: { run: functions, about: 'boards round chips: what keys, outputs and modes show, and what is wrong' },
  diagnose: { run: diagnose, about: 'suspects and the next reading, from readings of a board' },
};

function usage(): never {
  const verbs = Object.entries(VERBS).map(([name, v]) => `  ${name.padEnd(10)} ${v.about}`);
  process.stderr.write(
    [
      'usage: npm run --silent zesty -- <verb> --jsonl',
      'One JSON request a line on standard input, one JSON answer a line on standard output.',
      ...verbs,
      '',
    ].join('\n'),
  );
  process.exit(2);
}

function answerLine(run: Verb, line: string): object {
  let request: unknown;
  try {
    request = JSON.parse(line);
  } catch (error) {
    return { id: null, error: `not JSON: ${(error as Error).message}` };
  }
  if (typeof request !== 'object' || request === null || Array.isArray(request)) return { id: null, error: 'a request is a JSON object' };
  const id = (request as Request)['id'] ?? null;
  try {
    return { id, ...run(request as Request) };
  } catch (error) {
    return { id, error: error instanceof Error ? error.message : String(error) };
  }
}

const verb = VERBS[process.argv[2] ?? ''];
if (!verb || !process.argv.includes('--jsonl')) usage();
const lines = createInterface({ input: process.stdin, crlfDelay: Infinity });
lines.on('line', (line) => {
  if (line.trim()) process.stdout.write(`${JSON.stringify(answerLine(verb.run, line))}\n`);
});
