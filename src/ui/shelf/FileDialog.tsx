'use client';
import { Modal } from 'antd';
import type { KitDocument } from '@/core/kit';
import type { FilePreview } from '@/store/shelf';

interface Props {
  readonly preview: FilePreview | null;
  readonly close: () => void;
  readonly take: (doc: KitDocument) => void;
}

/** What a file would add to a kit that is here already, or what of a damaged one can be opened, before anything is stored. */
export function FileDialog({ preview, close, take }: Props) {
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
