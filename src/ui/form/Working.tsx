import { Button, Flex, Spin } from 'antd';
import { useEffect, useState } from 'react';

/** Work shorter than this says nothing, milliseconds. */
const NOTICED = 300;

/** Work that takes a while says so and can be stopped. */
export function Working({ say, stop }: { say: string; stop: () => void }) {
  const [long, setLong] = useState(false);
  useEffect(() => {
    const timer = setTimeout(() => {
      setLong(true);
    }, NOTICED);
    return () => {
      clearTimeout(timer);
    };
  }, []);
  return long ? (
    <Flex gap="small" align="center" role="status">
      <Spin size="small" /> {say}
      <Button size="small" onClick={stop}>
        Stop
      </Button>
    </Flex>
  ) : null;
}
