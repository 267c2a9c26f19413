import { useMemo, useState } from 'react';
import { answerPin, isLoose, nextPin, suppliesIn, walkFindings, walkOf, type WalkPin, type WalkSupply, withSupply } from '@/core/draft';
import type { Line } from '@/core/kit';

const MATCHES = 8;

export type Walking = ReturnType<typeof useWalk>;

/** A drawing that is being walked: the pin in hand, what was answered against it, and the way back. */
export function useWalk(lines: readonly Line[], deck: string, change: (deck: string) => void) {
  const [chosen, setChosen] = useState<Pick<WalkPin, 'ref' | 'index'> | null>(null);
  const [last, setLast] = useState<WalkPin | null>(null);
  const [text, setText] = useState('');
  const [against, setAgainst] = useState<string | null>(null);
  const [two, setTwo] = useState<{ readonly nets: readonly [string, string]; readonly typed: string } | null>(null);
  const [before, setBefore] = useState<readonly string[]>([]);
  const parts = useMemo(() => walkOf(lines, deck, suppliesIn(deck)), [lines, deck]);
  const pins = parts.flatMap((p) => p.pins);
  const pin = (chosen && pins.find((p) => p.ref === chosen.ref && p.index === chosen.index)) ?? nextPin(parts, last);
  const settle = (to: WalkPin | null) => {
    setText('');
    setAgainst(null);
    setTwo(null);
    setChosen(null);
    setLast(to);
  };
  const write = (now: string) => {
    setBefore([...before, deck]);
    change(now);
  };
  const answer = (typed: string, how: 'move' | 'join' | null = null) => {
    if (!pin) return;
    const got = answerPin(deck, parts, pin, typed, how);
    if (got.ok === true) {
      write(got.deck);
      settle(pin);
    } else if (got.ok === 'two') {
      setTwo({ nets: got.nets, typed });
      setAgainst(null);
    } else setAgainst(got.why);
  };
  return {
    parts,
    pin,
    part: parts.find((p) => p.ref === pin?.ref) ?? null,
    asked: pins.filter((p) => p.state !== 'todo').length,
    total: pins.length,
    findings: useMemo(() => walkFindings(parts), [parts]),
    matches: useMemo(() => matchesOf(text, pins, pin), [text, pins, pin]),
    text,
    setText: (t: string) => {
      setText(t);
      setAgainst(null);
      setTwo(null);
    },
    against,
    two,
    answer,
    choose: (p: WalkPin) => {
      settle(null);
      setChosen(p);
    },
    later: () => {
      settle(pin);
    },
    canGoBack: before.length > 0,
    back: () => {
      const held = before.at(-1);
      if (held === undefined) return;
      setBefore(before.slice(0, -1));
      change(held);
      settle(null);
    },
    addSupply: (supply: WalkSupply) => {
      write(withSupply(deck, supply));
    },
  };
}

/** What could be meant by what was typed so far: nets, then pins that begin so. */
function matchesOf(text: string, pins: readonly WalkPin[], pin: WalkPin | null): string[] {
  const begun = text.trim().toLowerCase();
  const nets = [...new Set(pins.filter((p) => !isLoose(p.net) && p.net !== '0').map((p) => p.net))];
  const places = pins.filter((p) => p.ref !== pin?.ref || p.index !== pin.index).map((p) => `${p.ref}.${p.name}`);
  return ['ground', 'nowhere', ...nets, ...(begun === '' ? [] : places)].filter((w) => w.toLowerCase().startsWith(begun)).slice(0, MATCHES);
}
