'use client';
import { Modal } from 'antd';
import type { KitDocument } from '@/core/kit';
import type { FilePreview } from '@/store/shelf';

interface Props {
  readonly preview: FilePreview | null;
  readonly close: () => void;
  readonly take: (doc: KitDocument) => void;
  readonly takeShelf: (docs: readonly KitDocument[]) => void;
}

/** What a file would add to a kit that is here already, or what of a damaged one can be opened, before anything is stored. */
export function FileDialog({ preview, close, take, takeShelf }: Props) {
  if (preview?.kind === 'shelf') return <ShelfDialog kits={preview.kits} made={preview.made} close={close} take={takeShelf} />;
  const doc = preview?.kind === 'adds' ? preview.doc : preview?.kind === 'refused' ? preview.rest : null;
  return (
    <Modal
      open={doc !== null}
      title={preview?.kind === 'adds' ? `“${preview.title}” is here already` : 'The file is damaged in places'}
      okText={preview?.kind === 'adds' ? 'Unite the two' : 'Open the rest'}
      cancelText="Leave it"
      onCancel={close}
      onOk={() => {
        if (doc) take(doc);
      }}
    >
      {preview?.kind === 'adds' && (
        <>
          <p>
            The file adds {preview.count} {preview.count === 1 ? 'entry' : 'entries'}; nothing that is here is lost.
            {preview.conflicts > 0 &&
              ` ${preview.conflicts} ${preview.conflicts === 1 ? 'record was' : 'records were'} changed in both: you will be asked which to keep.`}
          </p>
          <ul>
            {preview.texts.map((t, i) => (
              <li key={i}>{t}</li>
            ))}
            {preview.count > preview.texts.length && <li>and {preview.count - preview.texts.length} more</li>}
          </ul>
        </>
      )}
      {preview?.kind === 'refused' && (
        <>
          <p>{preview.message}</p>
          <p>
            {preview.damaged} {preview.damaged === 1 ? 'entry' : 'entries'} would be left out. The file itself stays as it is.
          </p>
        </>
      )}
    </Modal>
  );
}

interface ShelfProps {
  readonly kits: readonly FilePreview[];
  readonly made: string;
  readonly close: () => void;
  readonly take: (docs: readonly KitDocument[]) => void;
}

/** What a shelf's file would bring, kit by kit, before anything is stored. */
function ShelfDialog({ kits, made, close, take }: ShelfProps) {
  const docs = kits.flatMap((k) => (k.kind === 'new' || k.kind === 'adds' ? [k.doc] : []));
  return (
    <Modal
      open
      title={`A whole shelf${made === '' ? '' : `, saved ${made.slice(0, 10)}`}`}
      okText={docs.length === 1 ? 'Take it in' : `Take ${docs.length} in`}
      okButtonProps={{ disabled: docs.length === 0 }}
      cancelText="Leave it"
      onCancel={close}
      onOk={() => {
        take(docs);
      }}
    >
      <p>{docs.length === 0 ? 'Everything in it is here already.' : 'Nothing that is here is lost: entries are added, none is taken away.'}</p>
      <ul>
        {kits.map((k, i) => (
          <li key={i}>{broughtBy(k)}</li>
        ))}
      </ul>
    </Modal>
  );
}

function broughtBy(kit: FilePreview): string {
  switch (kit.kind) {
    case 'new':
      return `“${kit.title}”: new`;
    case 'same':
      return `“${kit.title}”: here already`;
    case 'adds':
      return `“${kit.title}”: ${kit.count === 1 ? '1 entry' : `${kit.count} entries`} more`;
    case 'refused':
    case 'newer':
      return `Left out. ${kit.message}`;
    case 'shelf':
      return 'Left out: a shelf within a shelf.';
  }
}
