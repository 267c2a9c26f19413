import { CameraOutlined, DeleteOutlined } from '@ant-design/icons';
import { App, Button, Image, Input, Upload } from 'antd';
import { lazy, Suspense, useState } from 'react';
import { type KitState, patch, remove } from '@/core/kit';
import { useBench } from '@/store/bench';
import zones from '../shell/zones.module.css';
import styles from './Sheet.module.css';
import records from './records/Records.module.css';

const PhotoPins = lazy(() => import('./PhotoPins').then((m) => ({ default: m.PhotoPins })));

const WIDTH = 150;

/** Photos of the board, the drawing, the slip: to compare with. */
export function Photos({ kit }: { kit: KitState }) {
  const { message } = App.useApp();
  const { append, photo } = useBench.getState();
  const attachments = useBench((s) => s.attachments);
  const [pinning, setPinning] = useState<string | null>(null);
  const pinned = kit.sheet.photos.find((p) => p.id === pinning);
  return (
    <section aria-label="Photos">
      <div className={records.head}>
        <h2 className={zones.label}>Photos of board and papers</h2>
        <Upload
          accept="image/*,.heic,.heif"
          showUploadList={false}
          hasControlInside
          beforeUpload={(file) => {
            photo(file).catch((e: unknown) => {
              void message.error((e as Error).message, 8);
            });
            return false;
          }}
        >
          <Button size="small" icon={<CameraOutlined />}>
            Add photo
          </Button>
        </Upload>
      </div>
      {kit.sheet.photos.length === 0 && <p className="soft">None yet: the board before anything is fitted is the best thing to compare with later.</p>}
      <div className={styles.photos}>
        {kit.sheet.photos.map((p) => (
          <figure key={p.id}>
            {attachments[p.hash] ? (
              <Image src={`data:${p.type};base64,${attachments[p.hash]!}`} alt={p.name} width={WIDTH} />
            ) : (
              <p className="soft">The picture is not in this browser.</p>
            )}
            <figcaption>
              <Input
                size="small"
                aria-label={`Name of the photo ${p.name}`}
                defaultValue={p.name}
                maxLength={120}
                onBlur={(e) => {
                  const name = e.target.value.trim();
                  if (name && name !== p.name) void append((k) => patch(k, 'photos', p.id, { name }));
                }}
              />
              {attachments[p.hash] && (
                <Button
                  size="small"
                  onClick={() => {
                    setPinning(p.id);
                  }}
                >
                  {p.pins?.length ? `${p.pins.length} pins` : 'Set pins'}
                </Button>
              )}
              <Button
                type="text"
                size="small"
                icon={<DeleteOutlined />}
                aria-label={`Remove photo ${p.name}`}
                onClick={() => {
                  void append((k) => remove(k, 'photos', p.id));
                }}
              />
            </figcaption>
          </figure>
        ))}
      </div>
      <Suspense>
        {pinned && attachments[pinned.hash] && (
          <PhotoPins
            kit={kit}
            photo={pinned}
            picture={`data:${pinned.type};base64,${attachments[pinned.hash]!}`}
            close={() => {
              setPinning(null);
            }}
          />
        )}
      </Suspense>
    </section>
  );
}
