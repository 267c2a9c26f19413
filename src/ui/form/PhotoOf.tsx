import { CameraOutlined } from '@ant-design/icons';
import { App, Button, Upload } from 'antd';
import { useBench } from '@/store/bench';

/** A photo of what is looked at: it goes into the logbook as a note that says what it shows. */
export function PhotoOf({ about }: { about: string }) {
  const { message } = App.useApp();
  return (
    <Upload
      accept="image/*,.heic,.heif"
      hasControlInside
      showUploadList={false}
      beforeUpload={(file) => {
        useBench
          .getState()
          .note(about, [file])
          .catch((e: unknown) => {
            void message.error((e as Error).message, 8);
          });
        return false;
      }}
    >
      <Button size="small" icon={<CameraOutlined />} aria-label={`Photo: ${about}`}>
        Photo
      </Button>
    </Upload>
  );
}
