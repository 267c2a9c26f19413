import type { Colour } from '@/core/marking';
import { BAND_PAINT, BODY } from '../theme/tokens';

interface Props {
  readonly width: number;
  readonly height: number;
  readonly colours: readonly (Colour | null)[];
  readonly paint: string;
  readonly onBand?: (index: number) => void;
}

/** Where the bands sit along the body, as shares of its width; the last one stands apart. */
const PLACES: Readonly<Record<number, readonly number[]>> = {
  5: [0.12, 0.28, 0.42, 0.56, 0.82],
  6: [0.1, 0.24, 0.37, 0.5, 0.66, 0.85],
};
const FOUR = [0.12, 0.32, 0.5, 0.82];

/** A body with a bulge at each end and bands around it; a band that was not read is a gap. Millimetres, middle at 0. */
export function Axial({ width: w, height: h, colours, paint, onBand }: Props) {
  const at = PLACES[colours.length] ?? FOUR;
  const bulge = w * 0.21;
  const waist = h * 0.38;
  const end = h / 2;
  return (
    <>
      <path
        d={`M${-w / 2} 0q0 ${-end} ${bulge * 0.6} ${-end}q${bulge * 0.5} 0 ${bulge} ${end - waist}h${w - 3.2 * bulge}q${bulge * 0.5} ${waist - end} ${bulge} ${waist - end}q${bulge * 0.6} 0 ${bulge * 0.6} ${end}q0 ${end} ${-bulge * 0.6} ${end}q${-bulge * 0.5} 0 ${-bulge} ${waist - end}h${-(w - 3.2 * bulge)}q${-bulge * 0.5} ${end - waist} ${-bulge} ${end - waist}q${-bulge * 0.6} 0 ${-bulge * 0.6} ${-end}z`}
        fill={paint}
        stroke={BODY.rim}
        strokeWidth={w * 0.01}
      />
      {colours.slice(0, 6).map((c, i) => {
        const outer = i === 0 || (i === colours.length - 1 && i > 1);
        const tall = outer ? h * 0.92 : 2 * waist;
        return (
          <rect
            key={i}
            x={-w / 2 + w * (at[i] ?? 0.9) - w * 0.035}
            y={-tall / 2}
            width={w * 0.075}
            height={tall}
            fill={c ? BAND_PAINT[c] : 'none'}
            stroke={c ? 'none' : BODY.gap}
            strokeWidth={w * 0.01}
            {...(onBand
              ? {
                  onClick: () => {
                    onBand(i);
                  },
                }
              : {})}
          />
        );
      })}
    </>
  );
}
