import { type ReactNode, useEffect, useRef } from 'react';
import { Select, type SelectProps } from 'antd';

/** A choice by a click or by typing some of its words; options without a label show their value. */
export function Choose<V extends string | null>({ options = [], ...props }: SelectProps<V>) {
  const labelled = options.map((o) => ('options' in o || o.label !== undefined ? o : { ...o, label: String(o.value) }));
  return <Select<V> showSearch={{ optionFilterProp: 'label' }} options={labelled} popupRender={(menu) => <NamedList>{menu}</NamedList>} {...props} />;
}

/** The library's open list has no name of its own; the field that has the focus says what it is for. */
function NamedList({ children }: { children: ReactNode }) {
  const around = useRef<HTMLDivElement>(null);
  useEffect(() => {
    around.current?.querySelector('[role=listbox]')?.setAttribute('aria-label', 'Choices');
  });
  return <div ref={around}>{children}</div>;
}
