import { type Goal, type KitTrace, type Pad, traceStep } from '../trace';
import type { TargetState } from './target';

/** The next pair of pads for the tester; none when the board is proved. */
export function traceTargets(trace: KitTrace, goal: Goal): TargetState[] {
  const step = traceStep(trace.board, trace.answers, goal);
  if (step.kind !== 'ask') return [];
  const [a, b] = step.pads.map((p) => trace.board.pads[p]!) as [Pad, Pad];
  return [
    {
      target: {
        kind: 'trace',
        id: `trace:${a.id}~${b.id}`,
        pads: [a.id, b.id],
        nets: [a.net, b.net],
        drawn: step.drawn,
        places:
          trace.sides === 'places'
            ? [
                { x: a.x, y: a.y },
                { x: b.x, y: b.y },
              ]
            : null,
      },
      done: false,
    },
  ];
}
