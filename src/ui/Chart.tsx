import Plotly from 'plotly.js-basic-dist-min';
import { useEffect, useRef } from 'react';

interface Props {
  readonly x: readonly number[];
  readonly y: readonly number[];
  readonly xTitle: string;
  readonly yTitle: string;
  readonly label: string;
}

const colour = (name: string) => getComputedStyle(document.documentElement).getPropertyValue(name).trim();

/** One curve on the bench's own paper. Loaded only where a chart is shown. */
export function Chart({ x, y, xTitle, yTitle, label }: Props) {
  const host = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const element = host.current;
    if (!element) return;
    const axis = (title: string) => ({ title: { text: title }, gridcolor: colour('--line'), zerolinecolor: colour('--soft'), color: colour('--ink') });
    void Plotly.newPlot(
      element,
      [{ x: [...x], y: [...y], type: 'scatter', mode: 'lines', line: { color: colour('--in'), width: 2 } }],
      {
        margin: { l: 52, r: 10, t: 10, b: 44 },
        height: 300,
        paper_bgcolor: 'transparent',
        plot_bgcolor: colour('--field'),
        font: { family: 'Sofia Sans Variable, sans-serif', size: 14 },
        xaxis: axis(xTitle),
        yaxis: axis(yTitle),
      },
      { displayModeBar: false, responsive: true },
    );
    return () => {
      Plotly.purge(element);
    };
  }, [x, y, xTitle, yTitle]);
  return <div ref={host} role="img" aria-label={label} />;
}
