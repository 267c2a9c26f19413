import { useEffect } from 'react';

/** Han, kana and the signs that go with them. */
const HAN = /[\u3000-\u30ff\u3400-\u9fff\uff00-\uffef]/;

/** Fetches the face for Chinese lists when one is first shown; of its hundred pieces the browser takes those that a text needs. */
export function ForeignFace({ text }: { text: string }) {
  const needed = HAN.test(text);
  useEffect(() => {
    if (needed) void import('@fontsource/noto-sans-sc/400.css');
  }, [needed]);
  return null;
}
