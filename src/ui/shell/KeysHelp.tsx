import { Descriptions, Flex, Modal, Switch } from 'antd';
import { setComfort, useComfort } from '../theme/comfort';
import { COMMAND_IDS, factsOfCommand } from './commands';

/** The `?` sheet: every command that has a key. */
export function KeysHelp({ close }: { close: () => void }) {
  const { singleKeys } = useComfort();
  const rows = COMMAND_IDS.map((id) => ({ id, ...factsOfCommand(id) })).filter((c) => c.shown !== '');
  return (
    <Modal open onCancel={close} footer={null} title="Keys" width={760}>
      <Descriptions
        column={{ xs: 1, md: 2 }}
        size="small"
        colon={false}
        items={rows.map((c) => ({ key: c.id, label: <kbd>{c.shown}</kbd>, children: c.title }))}
      />
      <Flex gap="small" align="center">
        <Switch
          id="single-keys"
          checked={singleKeys}
          onChange={(on) => {
            setComfort({ singleKeys: on });
          }}
        />
        <label htmlFor="single-keys">Single letters act while the entry field is empty</label>
      </Flex>
    </Modal>
  );
}
