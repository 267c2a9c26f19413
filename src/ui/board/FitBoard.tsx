import { Segmented, Slider, Switch } from 'antd';
import { lazy, Suspense, useCallback, useMemo, useState } from 'react';
import type { KitState, Ref } from '@/core/kit';
import { partPlaced } from '@/core/place';
import { useBench } from '@/store/bench';
import type { FitMode, Loop } from '../probe/useLoop';
import zones from '../shell/zones.module.css';
import { BoardMap, type LaidOut } from './BoardMap';
import styles from './BoardMap.module.css';
import { placeAs, placeParts, type PlacedPart } from './layout';
import { type MapSource, useMapSheet } from './useMapSheet';
import { ZoomFrame } from './ZoomFrame';

const Places = lazy(() => import('./Places').then((m) => ({ default: m.Places })));
const MoveParts = lazy(() => import('./MoveParts').then((m) => ({ default: m.MoveParts })));
const MoveTools = lazy(() => import('./MoveTools').then((m) => ({ default: m.MoveTools })));

const NO_REFS: readonly string[] = [];
const NO_POINTS: readonly never[] = [];
const NO_VERDICTS: ReadonlyMap<string, never> = new Map<string, never>();

const MODES: readonly { readonly value: FitMode; readonly label: string }[] = [
  { value: 'bare', label: 'Bare board' },
  { value: 'fit', label: 'Fit' },
  { value: 'look', label: 'Second look' },
  { value: 'trace', label: 'Trace' },
];

const SOURCE_WORDS: Readonly<Record<MapSource, string>> = {
  told: '',
  circuit: 'No places yet: parts are laid out by the circuit, not to scale. Set them under “Places”.',
  none: 'No places yet: parts are shown in rows, not to scale. Set them under “Places”.',
};

/** The board in Fit: from either side, over its photo, with its parts to be moved. */
export function FitBoard({ kit, loop }: { kit: KitState; loop: Loop }) {
  const [copper, setCopper] = useState(false);
  const [drawing, setDrawing] = useState(0.5);
  const [moving, setMoving] = useState(false);
  const { sheet, source } = useMapSheet(kit);
  const photo = usePhoto(kit, drawing, copper);
  const shown = useMemo(() => placeParts(sheet), [sheet]);
  const { target, fitMode } = loop;
  const refs = target?.kind === 'fit' ? target.refs : target?.kind === 'inspect' ? target.item.refs : NO_REFS;
  const points = useMemo(() => (target?.kind === 'trace' ? target.pads.map((id, i) => ({ id, net: '', ...target.places?.[i] })) : NO_POINTS), [target]);
  const [chosen, setChosen] = useState<Ref | null>(null);
  const over = useMoveOver(kit, { copper, shown, chosen, setChosen });
  return (
    <section className={`${zones.card} ${styles.board}`} aria-label="Board">
      <header className={`${zones.row} ${zones.between} ${styles.head}`}>
        <Segmented<FitMode> aria-label="What is done at the board" value={fitMode} options={[...MODES]} onChange={loop.setFitMode} />
        <div className={zones.row}>
          <label className={zones.row}>
            <Switch size="small" checked={copper} onChange={setCopper} aria-label="From the copper side" /> copper side
          </label>
          {photo && (
            <Slider
              className={styles.slider ?? ''}
              min={0}
              max={100}
              value={100 * drawing}
              tooltip={{ formatter: (v) => `drawing ${v ?? 0} %` }}
              ariaLabelForHandle="Drawing over the photo"
              onChange={(v) => {
                setDrawing(v / 100);
              }}
            />
          )}
          <Suspense>
            <Places
              kit={kit}
              move={() => {
                setMoving(true);
              }}
            />
          </Suspense>
        </div>
      </header>
      {moving ? (
        <Suspense>
          <MoveTools
            kit={kit}
            shown={shown}
            chosen={chosen}
            done={() => {
              setMoving(false);
              setChosen(null);
            }}
          />
        </Suspense>
      ) : (
        source !== 'told' && <p className={`soft ${styles.rows}`}>{SOURCE_WORDS[source]}</p>
      )}
      <ZoomFrame className={`${styles.frame} ${copper ? styles.copper : ''}`}>
        <BoardMap
          photo={photo}
          sheet={sheet}
          present={kit.board.fitted}
          marked={new Set(refs)}
          points={points}
          verdicts={NO_VERDICTS}
          red={target?.kind === 'trace' ? target.pads[0] : null}
          black={target?.kind === 'trace' ? target.pads[1] : null}
          {...(moving ? { over } : {})}
        />
      </ZoomFrame>
    </section>
  );
}

/** The photo of the side that is looked at, when one was made the map. */
function usePhoto(kit: KitState, drawing: number, copper: boolean) {
  const attachments = useBench((s) => s.attachments);
  const mapped = kit.sheet.photos.find((p) => p.onMap && (p.onMap.side === 'bottom') === copper && attachments[p.hash]);
  return useMemo(
    () => (mapped?.onMap ? { picture: `data:${mapped.type};base64,${attachments[mapped.hash]!}`, onMap: mapped.onMap, drawing } : null),
    [mapped, attachments, drawing],
  );
}

interface Moving {
  readonly copper: boolean;
  readonly shown: readonly PlacedPart[];
  readonly chosen: Ref | null;
  readonly setChosen: (ref: Ref) => void;
}

/** Parts to be dragged, laid over the map. */
function useMoveOver(kit: KitState, { copper, shown, chosen, setChosen }: Moving) {
  const append = useBench((s) => s.append);
  return useCallback(
    (map: LaidOut) => (
      <Suspense>
        <MoveParts
          map={map}
          mirrored={copper}
          chosen={chosen}
          choose={setChosen}
          move={(part, x, y) => {
            setChosen(part.ref);
            const known = kit.sheet.placement;
            void append((k) =>
              partPlaced(
                k,
                placeAs({ ...part, x, y }, known),
                shown.map((p) => placeAs(p, known)),
              ),
            );
          }}
        />
      </Suspense>
    ),
    [kit, append, copper, chosen, setChosen, shown],
  );
}
