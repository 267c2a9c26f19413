/** The document without a browser: what one keystroke on a kit of 300 lines and 5 000 entries costs the core. */
import { deriveTray, documentOf, extend, fold, foldDocument, type KitState, lastUndoable, openKit } from '../../src/core/kit';
import { lastVerdict } from '../../src/core/loop/lastVerdict';
import { deriveStages } from '../../src/core/loop/progress';
import { fitTargets } from '../../src/core/loop/fitTargets';
import { countTargets, pieceTargets } from '../../src/core/loop/targets';
import { bigKit, nextEntry } from './bigKit';

const median = (values: readonly number[]) => [...values].sort((a, b) => a - b)[values.length >> 1]!;

/** Median of some runs, milliseconds. */
function time(run: (n: number) => void, runs = 41): number {
  return median(
    Array.from({ length: runs }, (_, n) => {
      const from = performance.now();
      run(n);
      return performance.now() - from;
    }),
  );
}

/** Everything that the screens read after an entry. */
function look(kit: KitState): unknown {
  return [deriveTray(kit), countTargets(kit), pieceTargets(kit), fitTargets(kit), deriveStages(kit, {}), lastVerdict(kit, {})];
}

export function benchDocument(say: (...text: string[]) => void, padded: (text: string) => string): void {
  const kit = bigKit();
  const doc = documentOf(kit);
  const text = JSON.stringify(doc);
  const parse = time(() => {
    JSON.parse(text);
  }, 11);
  const ms = (t: number) => `${t.toFixed(2)} ms, ${(t / parse).toFixed(2)} × parsing its JSON`;
  say(`the document: ${kit.sheet.lines.length} lines, ${kit.log.length} entries, ${(text.length / 1e6).toFixed(1)} MB (parsing alone ${parse.toFixed(1)} ms)`);
  const open = () => {
    const opened = openKit(text);
    if (opened.ok) foldDocument(opened.kit);
  };
  say(padded('  open: parse, check every entry, fold'), ms(time(open, 11)));
  say(padded('  fold all'), ms(time(() => fold(kit.id, kit.created, kit.log), 11)));
  look(kit);
  say(padded('  extend by one'), ms(time((n) => extend(kit, nextEntry(kit, n)))));
  say(padded('  keystroke: extend, and all that screens read'), ms(time((n) => look(extend(kit, nextEntry(kit, n))))));
  const next = extend(kit, nextEntry(kit, 1000));
  look(next);
  say(
    padded('  undo of it, and all that screens read'),
    ms(time((n) => look(extend(next, { kind: 'withdrawn', entry: lastUndoable(next)!.id, id: `u${n}`, at: '2027' })))),
  );
}
