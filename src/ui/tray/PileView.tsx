'use client';
import { Button, Flex, Segmented } from 'antd';
import { useMemo } from 'react';
import { lineTitle, patternText, pieceName, type Pile, pileOf, settlingStep, type SortedPile } from '@/core/loop';
import type { KitState, Line } from '@/core/kit';
import type { LooseKind, LoosePiece } from '@/core/parcel';
import { print } from '@/core/quantity';
import { LOOSE_FACTS, unitOf } from '@/core/vocabulary';
import { useBench } from '@/store/bench';
import { PartBody } from '../drawn/Body';
import { VerdictMark } from '../drawn/VerdictMark';
import type { Loop } from '../probe/useLoop';
import { useResult } from '../results/useResult';
import zones from '../shell/zones.module.css';
import styles from './Pile.module.css';
import tray from './Tray.module.css';

const KINDS: readonly { readonly value: LooseKind; readonly label: string }[] = [
  { value: 'R', label: 'resistors' },
  { value: 'C', label: 'capacitors' },
  { value: 'L', label: 'coils' },
  { value: 'D', label: 'diodes' },
  { value: 'LED', label: 'LEDs' },
  { value: 'Q', label: 'transistors' },
];

/** The loose pile: pieces typed in any order find their lines by themselves. */
export function PileView({ kit, loop }: { kit: KitState; loop: Loop }) {
  const pile = useMemo(() => pileOf(kit), [kit]);
  const { value: sorted } = useResult('pile', kit, undefined);
  const known = sorted && pile.pieces.every((p) => p.id in sorted.sorted.assignment) ? sorted : null;
  return (
    <div className={`${zones.zones} ${zones.thingWhy}`}>
      <section className={`${tray.tray} ${styles.pile}`} aria-label="Loose pile">
        {pile.lines.map((l) => (
          <PileCell key={l.number} line={kit.sheet.lines[l.number - 1]!} pile={pile} sorted={known} number={l.number} wanted={l.quantity} />
        ))}
        <StrangersCell pile={pile} sorted={known} />
      </section>
      <aside className={`${zones.card} ${zones.why}`} aria-label="Why">
        <PileStory kit={kit} pile={pile} sorted={known} loop={loop} />
      </aside>
    </div>
  );
}

const placedAt = (pile: Pile, sorted: SortedPile | null, line: number | null): LoosePiece[] =>
  sorted ? pile.pieces.filter((p) => (sorted.sorted.assignment[p.id] ?? null) === line) : [];

function PileCell({ line, pile, sorted, number, wanted }: { line: Line; pile: Pile; sorted: SortedPile | null; number: number; wanted: number }) {
  const here = placedAt(pile, sorted, number);
  const unsure = here.some((p) => sorted?.doubts.some((d) => d.piece === p.id));
  const verdict = here.length < Math.max(1, wanted) ? 'none' : unsure ? 'doubtful' : 'in';
  return (
    <div className={[tray.cell, here.length === 0 ? tray.empty : '', unsure ? tray.doubtful : ''].join(' ')}>
      <span className={tray.top}>
        <b>{lineTitle(line)}</b>
        <small className="num">
          {here.length}/{wanted}
        </small>
      </span>
      <small className="num">{line.refs.join(' ') || 'no place on the board'}</small>
      <span className={tray.body}>
        <PartBody line={line} />
      </span>
      <span className={tray.foot}>
        <VerdictMark verdict={verdict} size={15} />
        <span className="num">{here.length === 0 ? 'none yet' : here.map(pieceName).join(' · ')}</span>
      </span>
    </div>
  );
}

function StrangersCell({ pile, sorted }: { pile: Pile; sorted: SortedPile | null }) {
  const strangers = placedAt(pile, sorted, null);
  return (
    <div className={`${tray.cell} ${strangers.length > 0 ? tray.out : tray.empty}`} role="group" aria-label="Strangers">
      <span className={tray.top}>
        <b>Not on the list</b>
        <small className="num">{strangers.length}</small>
      </span>
      <small>belong to no line</small>
      <span className={tray.body} />
      <span className={tray.foot}>
        <VerdictMark verdict={strangers.length > 0 ? 'out' : 'none'} size={15} />
        <span className="num">{strangers.length === 0 ? 'none' : strangers.map(pieceName).join(' · ')}</span>
      </span>
    </div>
  );
}

function PileStory({ kit, pile, sorted, loop }: { kit: KitState; pile: Pile; sorted: SortedPile | null; loop: Loop }) {
  const append = useBench((s) => s.append);
  const wanted = pile.lines.reduce((n, l) => n + l.quantity, 0);
  const last = pile.pieces[pile.pieces.length - 1];
  // Shortages say something only when the pile is nearly through.
  const through = pile.pieces.length >= 0.8 * wanted;
  const patterns = (sorted?.patterns ?? []).filter((p) => through || p.kind === 'stranger' || p.kind === 'spare');
  const step = sorted ? settlingStep(kit, pile, sorted) : null;
  const takeOver = () => {
    if (!sorted) return;
    const lineOf = (id: string) => {
      const number = sorted.sorted.assignment[id] ?? null;
      return number === null ? null : kit.sheet.lines[number - 1]!.id;
    };
    void append({ kind: 'sorted', pieces: pile.pieces.map((p) => ({ loose: p.id, line: lineOf(p.id) })) });
    loop.setPileKind(null);
  };
  return (
    <>
      <h2 className={zones.label}>What the pile says</h2>
      <Segmented
        vertical
        block
        size="small"
        aria-label="Kind of the next piece"
        options={[...KINDS]}
        value={loop.pileKind ?? 'R'}
        onChange={loop.setPileKind}
      />
      <div className={styles.said}>
        {pile.pieces.length === 0 ? (
          <p>
            Tip the bag out. Take any piece, type its print if you can read it and what the meter shows, press Enter. <b>{wanted} pieces</b> are on the list.
          </p>
        ) : (
          <p>
            <b>
              {pile.pieces.length} of {wanted} pieces
            </b>{' '}
            typed. {last && sorted && placeText(kit, sorted, last)}
          </p>
        )}
        {patterns.map((p) => {
          const { title, advice } = patternText(kit, pile, p);
          return (
            <p key={title}>
              <b>{title}.</b> {advice}
            </p>
          );
        })}
        {step !== null && <p className={zones.note}>{step}</p>}
      </div>
      <Flex gap="small" wrap>
        <Button type={through ? 'primary' : 'default'} disabled={!sorted || pile.pieces.length === 0} onClick={takeOver}>
          Use this in the tray
        </Button>
        <Button
          onClick={() => {
            loop.setPileKind(null);
          }}
        >
          Back to counting <kbd>L</kbd>
        </Button>
      </Flex>
    </>
  );
}

/** Where the last piece went. */
function placeText(kit: KitState, sorted: SortedPile, piece: LoosePiece): string {
  const number = sorted.sorted.assignment[piece.id] ?? null;
  const doubt = sorted.doubts.find((d) => d.piece === piece.id);
  const sure = doubt ? `${Math.round(100 * doubt.probability)} % sure` : 'sure';
  const shown = piece.value === null ? pieceName(piece) : print(piece.value, unitOf(LOOSE_FACTS[piece.kind].mode), 3);
  return number === null ? `${shown} belongs to no line (${sure}).` : `${shown} goes to ${lineTitle(kit.sheet.lines[number - 1]!)} (${sure}).`;
}
