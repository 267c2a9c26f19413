import { DeleteOutlined } from '@ant-design/icons';
import { Button, InputNumber, Modal, Segmented, Select } from 'antd';
import { type PointerEvent, useEffect, useState } from 'react';
import { type KitState, put, type RecordOf } from '@/core/kit';
import { photoOnMap, photoOverPlaces, type PhotoScale, type PhotoSide, pinsTaken } from '@/core/place';
import { useBench } from '@/store/bench';
import { Choose } from '../form/Choose';
import zones from '../shell/zones.module.css';
import styles from './Sheet.module.css';

type Photo = RecordOf<'photos'>;
type Pin = NonNullable<Photo['pins']>[number];

/** The drawing's own units for one width of the photo. */
const WIDE = 1000;
const LIES = [
  { value: 'level', label: 'flat on the board' },
  { value: 'upright', label: 'upright on the board' },
  { value: 'as photographed', label: 'as photographed' },
] as const;

interface Props {
  readonly kit: KitState;
  readonly photo: Photo;
  readonly picture: string;
  readonly close: () => void;
}

/** Pins set on a photo of the board: each part and test point where it is seen; two of them with their distance give the scale. */
export function PhotoPins({ kit, photo, picture, close }: Props) {
  const append = useBench((s) => s.append);
  const names = [...kit.sheet.lines.flatMap((l) => l.refs), ...kit.sheet.testPoints.map((t) => t.id)];
  const [pins, setPins] = useState<readonly Pin[]>(photo.pins ?? []);
  const unset = names.filter((n) => !pins.some((p) => p.ref === n));
  const [asked, setAsked] = useState<string | null>(null);
  const name = asked ?? unset[0] ?? null;
  const [scale, setScale] = useState<PhotoScale>({ from: pins[0]?.ref ?? '', to: pins[1]?.ref ?? '', millimetres: 0, lies: 'level' });
  const known = { ...scale, from: scale.from || (pins[0]?.ref ?? ''), to: scale.to || (pins[1]?.ref ?? '') };
  const [side, setSide] = useState<PhotoSide>(photo.onMap?.side ?? 'top');
  const onMap = photoOnMap(pins, known, side);
  const overMap = photoOverPlaces(pins, kit, known, side);
  const set = (ref: string, x: number, y: number) => {
    setPins([...pins.filter((p) => p.ref !== ref), { ref, x, y }]);
  };
  const save = (as: 'pins' | 'map' | 'over') => {
    const pinned = { ...photo, pins: [...pins] };
    void append((k) =>
      as === 'map' && onMap ? pinsTaken(k, pinned, onMap) : as === 'over' && overMap ? pinsTaken(k, pinned, overMap, 'missing') : put(k, 'photos', pinned),
    ).then(close);
  };
  const options = pins.map((p) => ({ value: p.ref, label: p.ref }));
  return (
    <Modal
      open
      width="min(72rem, 96vw)"
      title={`Pins on “${photo.name}”`}
      onCancel={close}
      footer={[
        <Button
          key="keep"
          onClick={() => {
            save('pins');
          }}
        >
          Keep the pins
        </Button>,
        <Button
          key="over"
          disabled={!overMap}
          onClick={() => {
            save('over');
          }}
        >
          Align it with the map
        </Button>,
        <Button
          key="map"
          type="primary"
          disabled={!onMap}
          onClick={() => {
            save('map');
          }}
        >
          Make it the map
        </Button>,
      ]}
    >
      <div className={styles.pinning}>
        <PinnedPhoto
          picture={picture}
          pins={pins}
          here={name}
          place={(x, y) => {
            if (name === null) return;
            set(name, x, y);
            setAsked(null);
          }}
        />
        <div>
          <Segmented<PhotoSide>
            aria-label="Side that the photo shows"
            value={side}
            options={[
              { value: 'top', label: 'From above' },
              { value: 'bottom', label: 'Copper side' },
            ]}
            onChange={setSide}
          />
          <p>
            {name === null ? (
              'Every part has its pin.'
            ) : (
              <>
                Click where <b>{name}</b> sits: the middle of its body.
              </>
            )}
          </p>
          <Choose<string | null>
            aria-label="Part or point to pin"
            className={styles.wide ?? ''}
            value={name}
            options={names.map((n) => ({ value: n, label: pins.some((p) => p.ref === n) ? `${n} (set)` : n }))}
            onChange={setAsked}
          />
          {pins.map((p) => (
            <div key={p.ref} className={zones.row}>
              <b>{p.ref}</b>
              {(['x', 'y'] as const).map((axis) => (
                <InputNumber
                  key={axis}
                  size="small"
                  aria-label={`${p.ref}, ${axis === 'x' ? 'from the left' : 'from the top'}`}
                  min={0}
                  max={400}
                  step={0.5}
                  value={Math.round(p[axis] * 1000) / 10}
                  suffix="%"
                  onChange={(v) => {
                    if (v !== null) set(p.ref, axis === 'x' ? v / 100 : p.x, axis === 'y' ? v / 100 : p.y);
                  }}
                />
              ))}
              <Button
                type="text"
                size="small"
                icon={<DeleteOutlined />}
                aria-label={`Remove the pin of ${p.ref}`}
                onClick={() => {
                  setPins(pins.filter((q) => q.ref !== p.ref));
                }}
              />
            </div>
          ))}
          {pins.length > 1 && (
            <>
              <h3 className={`${zones.label} ${zones.section}`}>Scale: two of them and their distance</h3>
              <div className={zones.row}>
                <Select
                  aria-label="From"
                  value={known.from}
                  options={options}
                  onChange={(from) => {
                    setScale({ ...known, from });
                  }}
                />
                <Select
                  aria-label="To"
                  value={known.to}
                  options={options}
                  onChange={(to) => {
                    setScale({ ...known, to });
                  }}
                />
                <InputNumber
                  aria-label="Distance"
                  min={0}
                  value={scale.millimetres || null}
                  suffix="mm"
                  onChange={(v) => {
                    setScale({ ...known, millimetres: v ?? 0 });
                  }}
                />
                <Select
                  aria-label="How they lie"
                  value={scale.lies}
                  options={[...LIES]}
                  onChange={(lies) => {
                    setScale({ ...known, lies });
                  }}
                />
              </div>
              {!onMap && (
                <p className="soft">
                  Measure the distance of two parts on the board: then the pins become places on the map.
                  {overMap ? ` Or lay the photo on the map that is there, by ${known.from} and ${known.to}.` : ''}
                </p>
              )}
            </>
          )}
        </div>
      </div>
    </Modal>
  );
}

interface PinnedProps {
  readonly picture: string;
  readonly pins: readonly Pin[];
  readonly here: string | null;
  readonly place: (x: number, y: number) => void;
}

function PinnedPhoto({ picture, pins, here, place }: PinnedProps) {
  const [tall, setTall] = useState<number | null>(null);
  useEffect(() => {
    const image = new Image();
    image.onload = () => {
      setTall(image.naturalHeight / image.naturalWidth);
    };
    image.src = picture;
  }, [picture]);
  if (tall === null) return <p className="soft">Opening the photo…</p>;
  // A surface to draw on, not a button: by the keyboard pins are set beside it.
  const click = (e: PointerEvent<SVGSVGElement>) => {
    const box = e.currentTarget.getBoundingClientRect();
    place((e.clientX - box.left) / box.width, (e.clientY - box.top) / box.width);
  };
  return (
    <svg className={styles.pinned ?? ''} viewBox={`0 0 ${WIDE} ${WIDE * tall}`} role="img" aria-label={`Photo with ${pins.length} pins`} onPointerDown={click}>
      <image href={picture} width={WIDE} height={WIDE * tall} />
      {pins.map((p) => (
        <g key={p.ref} transform={`translate(${p.x * WIDE} ${p.y * WIDE})`}>
          <circle r="9" fill={p.ref === here ? 'var(--zest)' : 'var(--sheet)'} stroke="var(--ink)" strokeWidth="2" />
          <text x="13" y="6" className={styles.pinName ?? ''}>
            {p.ref}
          </text>
        </g>
      ))}
    </svg>
  );
}
