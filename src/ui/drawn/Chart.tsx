import Plotly from 'plotly.js-basic-dist-min';
import { useEffect, useRef } from 'react';
import { TEXT_FACE } from '../theme/tokens';

interface Props {
  readonly x: readonly number[];
  readonly y: readonly number[];
  readonly xTitle: string;
  readonly yTitle: string;
  readonly label: string;
  /** A second curve: what was expected. */
  readonly beside?: { readonly x: readonly number[]; readonly y: readonly number[] };
  /** Single points beside the curve: what was read. */
  readonly marks?: { readonly x: readonly number[]; readonly y: readonly number[] };
}

const colour = (name: string) => getComputedStyle(document.documentElement).getPropertyValue(name).trim();

/** One curve on the bench's own paper. Loaded only where a chart is shown. */
export function Chart({ x, y, xTitle, yTitle, label, marks, beside }: Props) {
  const host = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const element = host.current;
    if (!element) return;
    const axis = (title: string) => ({ title: { text: title }, gridcolor: colour('--line'), zerolinecolor: colour('--soft'), color: colour('--ink') });
    void Plotly.newPlot(
      element,
      [
        { x: [...x], y: [...y], type: 'scatter', mode: 'lines', line: { color: colour('--in'), width: 2 } },
        ...(beside
          ? [
              {
                x: [...beside.x],
                y: [...beside.y],
                type: 'scatter' as const,
                mode: 'lines' as const,
                line: { color: colour('--soft'), width: 2, dash: 'dash' as const },
              },
            ]
          : []),
        ...(marks
          ? [{ x: [...marks.x], y: [...marks.y], type: 'scatter' as const, mode: 'markers' as const, marker: { color: colour('--ink'), size: 8 } }]
          : []),
      ],
      {
        margin: { l: 52, r: 10, t: 10, b: 44 },
        height: 300,
        showlegend: false,
        paper_bgcolor: 'transparent',
        plot_bgcolor: colour('--field'),
        font: { family: TEXT_FACE, size: 14 },
        xaxis: axis(xTitle),
        yaxis: axis(yTitle),
      },
      { displayModeBar: false, responsive: true },
    );
    return () => {
      Plotly.purge(element);
    };
  }, [x, y, xTitle, yTitle, marks, beside]);
  return <div ref={host} role="img" aria-label={label} />;
}
