'use client';
import { ConfigProvider, theme } from 'antd';
import { type ReactNode, useEffect, useState } from 'react';

const TEXT = "'Sofia Sans Variable', sans-serif";
const PREFERENCE = 'zesty-theme';

/** Light bench or dim bench; the choice outlives the tab. */
export function Theme({ children }: { children: ReactNode }) {
  const [dim, setDim] = useState(false);
  useEffect(() => {
    const apply = () => {
      const chosen = localStorage.getItem(PREFERENCE);
      const next = chosen ? chosen === 'dim' : matchMedia('(prefers-color-scheme: dark)').matches;
      document.documentElement.dataset['theme'] = next ? 'dim' : 'light';
      setDim(next);
    };
    apply();
    addEventListener('zesty-theme', apply);
    return () => {
      removeEventListener('zesty-theme', apply);
    };
  }, []);
  const token = dim
    ? { colorPrimary: '#f39a33', colorBgBase: '#22282a', colorTextBase: '#ece7da', colorBorder: '#3d4547' }
    : { colorPrimary: '#a65800', colorBgBase: '#fffcf5', colorTextBase: '#1d2729', colorBorder: '#d8cfbb' };
  return (
    <ConfigProvider
      theme={{
        algorithm: dim ? theme.darkAlgorithm : theme.defaultAlgorithm,
        token: { ...token, fontFamily: TEXT, fontSize: 15, borderRadius: 9 },
        components: { Button: { defaultHoverColor: token.colorTextBase, defaultActiveColor: token.colorTextBase } },
      }}
    >
      {children}
    </ConfigProvider>
  );
}

export function toggleTheme(): void {
  const dim = document.documentElement.dataset['theme'] === 'dim';
  localStorage.setItem(PREFERENCE, dim ? 'light' : 'dim');
  dispatchEvent(new Event('zesty-theme'));
}
