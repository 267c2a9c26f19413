import { FolderOpenOutlined } from '@ant-design/icons';
import { Button, Upload } from 'antd';

/** Opens a file by hand; dropping it anywhere does the same. */
export function FileButton({ text, accept, take }: { text: string; accept: string; take: (file: File) => void }) {
  return (
    <Upload
      accept={accept}
      showUploadList={false}
      hasControlInside
      beforeUpload={(file) => {
        take(file);
        return false;
      }}
    >
      <Button size="large" icon={<FolderOpenOutlined />}>
        {text}
      </Button>
    </Upload>
  );
}
