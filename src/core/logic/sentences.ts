import type { LogicCheck } from './board';
import { Behaviour, FUNCTION, whatLacks } from './behaviour';
import { mayBlink, plannedTries } from './plannedTries';
import { LAMP_MODELS, Wiring } from './wiring';
import { chipOf, neighboursOf, nothingWritten, PLUS } from './written';

/** What is wrong or unsure in a sentence; `ask` leaves the sentence standing as it was taken. */
export interface SentenceRemark {
  /** From 1; 0 speaks of the board as a whole. */
  readonly line: number;
  readonly severity: 'error' | 'ask';
  readonly message: string;
}

/** A board written in sentences, as the description that `readBoard` takes. The id of a check is what is done: `Press K3`. */
export interface Sentences {
  readonly description: Readonly<Record<string, unknown>> & { readonly checks: readonly LogicCheck[] };
  readonly remarks: readonly SentenceRemark[];
  /** Lamps that some function makes blink. */
  readonly mayBlink: readonly string[];
}

/** Reads a board that is written in sentences, one a line. Never throws; what is not understood is a remark with its line. */
export function readSentences(text: string): Sentences {
  const remarks: SentenceRemark[] = [];
  let line = 0;
  const remark = (severity: SentenceRemark['severity']) => (message: string) => void remarks.push({ line, severity, message });
  const say = { error: remark('error'), ask: remark('ask') };
  const written = nothingWritten();
  const [wiring, behaviour] = [new Wiring(written, say), new Behaviour(written, say)];
  const sentences = text
    .split(/\r?\n/)
    .map((t, i) => ({
      at: i + 1,
      sentence: t
        .replace(/\s*(?:#|\/\/).*$/, '')
        .trim()
        .replace(/[.;]$/, ''),
    }))
    .filter((s) => s.sentence !== '');
  // Functions speak of parts that may be written below them.
  for (const happens of [false, true])
    for (const { at, sentence } of sentences)
      if (FUNCTION.test(sentence) === happens) {
        line = at;
        (happens ? behaviour : wiring).read(sentence);
      }
  line = 0;
  whatLacks(written, say);
  const chips = [...written.chips.values()];
  return {
    description: {
      name: 'sentences',
      deck: `* Written in sentences\nV1 ${PLUS} 0 ${written.volts}\n${written.cards.join('\n')}\n${LAMP_MODELS}\n.end\n`,
      parts: written.parts,
      chips: chips.map(chipOf),
      neighbours: neighboursOf(chips),
      meters: [],
      checks: plannedTries(written),
    },
    remarks,
    mayBlink: mayBlink(written),
  };
}
