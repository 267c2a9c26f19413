import { FolderOpenOutlined } from '@ant-design/icons';
import { Button, Upload } from 'antd';

interface Props {
  readonly text: string;
  readonly accept: string;
  readonly size?: 'large' | 'middle';
  readonly take: (file: File) => void;
}

/** Opens a file by hand. */
export function FileButton({ text, accept, size = 'large', take }: Props) {
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
      <Button size={size} icon={<FolderOpenOutlined />}>
        {text}
      </Button>
    </Upload>
  );
}
