'use client';
import { App, ConfigProvider } from 'antd';
import { type ReactNode, useLayoutEffect, useMemo } from 'react';
import { rootSize } from './boot';
import { useCalm, useComfort, useDim } from './comfort';
import { dimLibraryVariables, dress } from './dress';

/** Only the page as it is served needs them: once the program runs, the library writes its own. */
const SERVED = typeof window === 'undefined' ? dimLibraryVariables() : '';

/** Light bench or dim bench, small print or large: the library and our drawings dressed alike. */
export function Theme({ children }: { children: ReactNode }) {
  const dim = useDim();
  const { text } = useComfort();
  const calm = useCalm();
  useLayoutEffect(() => {
    const root = document.documentElement;
    root.dataset['theme'] = dim ? 'dim' : 'light';
    root.dataset['live'] = '';
    root.style.fontSize = text === 100 ? '' : rootSize(text);
    root.classList.toggle('calm', calm);
  }, [dim, text, calm]);
  const config = useMemo(() => dress(dim, text / 100, calm), [dim, text, calm]);
  return (
    <ConfigProvider theme={config} wave={{ disabled: true }}>
      <style suppressHydrationWarning dangerouslySetInnerHTML={{ __html: SERVED }} />
      <App component={false} message={{ top: 64, maxCount: 3, pauseOnHover: false }}>
        {children}
      </App>
    </ConfigProvider>
  );
}
