import { Alert, Button, Flex } from 'antd';
import { Component, type ReactNode } from 'react';
import { documentOf } from '@/core/kit';
import { useBench } from '@/store/bench';
import { saveFile } from './saveFile';

interface Props {
  /** The view that stands here: another one starts afresh. */
  readonly view: string;
  readonly children: ReactNode;
}

/** A view that fails leaves the bench alive: the other views, the probe bar and the kit itself. */
export class ViewBoundary extends Component<Props, { readonly failure: string | null }> {
  override state: { readonly failure: string | null } = { failure: null };

  static getDerivedStateFromError(error: unknown) {
    return { failure: error instanceof Error ? error.message : String(error) };
  }

  override componentDidUpdate({ view }: Props) {
    if (view !== this.props.view && this.state.failure !== null) this.setState({ failure: null });
  }

  override render() {
    const { failure } = this.state;
    if (failure === null) return this.props.children;
    return (
      <Alert
        type="error"
        title="This view failed"
        description={`Nothing of the kit is lost, and the other views work. What the program said: ${failure.slice(0, 300)}`}
        action={
          <Flex gap="small">
            <Button
              type="primary"
              onClick={() => {
                this.setState({ failure: null });
              }}
            >
              Reload this view
            </Button>
            <Button onClick={exportKit}>Export the kit</Button>
          </Flex>
        }
      />
    );
  }
}

function exportKit() {
  const { kit } = useBench.getState();
  if (kit) saveFile(`${kit.sheet.title}.zesty.json`, JSON.stringify(documentOf(kit), null, 1));
}
