import type { ReactNode } from 'react';

/** Symbols of the trade, drawn unturned round their origin; leads end on the pins. Units of the drawing's grid. */
const zigzag = 'M0 -2v0.5l0.6 0.25l-1.2 0.5l1.2 0.5l-1.2 0.5l1.2 0.5l-0.6 0.25v0.5';
const box = (
  <>
    <path d="M0 -2v0.8M0 1.2v0.8" />
    <rect x="-0.5" y="-1.2" width="1" height="2.4" />
  </>
);
const diode = (
  <>
    <path d="M0 -2v4M-0.8 0.6h1.6" />
    <path d="M-0.8 -0.7h1.6l-0.8 1.3z" fill="currentColor" />
  </>
);
const plates = <path d="M0 -2v1.75M0 0.25v1.75M-0.9 -0.25h1.8M-0.9 0.25h1.8" />;
const rays = <path d="M1.1 -0.2l0.6 -0.6m-0.45 0h0.45v0.45M1.1 0.6l0.6 -0.6m-0.45 0h0.45v0.45" />;
const arrow = (d: string) => <path d={d} fill="currentColor" stroke="none" />;
const transistor = (emitter: ReactNode, out: boolean) => (
  <>
    <circle r="1.75" />
    <path d="M-2 0h1.4M-0.6 -1v2M-0.6 -0.4L1 -1.4V-2M-0.6 0.4L1 1.4V2" />
    {emitter}
    {out ? null : null}
  </>
);
const fet = (n: boolean) => (
  <>
    <path d="M-2 0h1.1M-0.9 -1v2M-0.5 -1.1v0.6M-0.5 -0.3v0.6M-0.5 0.5v0.6M-0.5 -0.8H1V-2M-0.5 0.8H1V2M-0.5 0H0.4V0.8" />
    {arrow(n ? 'M-0.5 0l0.6 -0.3v0.6z' : 'M0.3 0l-0.6 -0.3v0.6z')}
  </>
);
const jfet = (n: boolean) => (
  <>
    <path d="M-2 0h1.4M-0.6 -1.2v2.4M-0.6 -0.8H1V-2M-0.6 0.8H1V2" />
    {arrow(n ? 'M-0.7 0l-0.6 -0.3v0.6z' : 'M-1.3 0l0.6 -0.3v0.6z')}
  </>
);

/** Resistors as the European school draws them, or as the American one does. */
export type School = 'box' | 'zigzag';

export function Symbol({ kind, school, form }: { readonly kind: string; readonly school: School; readonly form?: 'b' | undefined }): ReactNode {
  switch (kind) {
    case 'resistor':
      return school === 'zigzag' ? <path d={zigzag} /> : box;
    case 'thermistor':
      return (
        <>
          {box}
          <path d="M-0.9 1.3h0.4L0.7 -1.2" />
        </>
      );
    case 'ldr':
      return (
        <>
          {box}
          <path d="M-1.7 -0.9l0.8 0.6m-0.1 -0.45l0.1 0.45h-0.45M-1.7 0l0.8 0.6m-0.1 -0.45l0.1 0.45h-0.45" />
        </>
      );
    case 'trimmer':
      return (
        <>
          {school === 'zigzag' ? <path d={zigzag} /> : box}
          <path d="M2 0H0.9" />
          {arrow('M0.5 0l0.6 -0.35v0.7z')}
        </>
      );
    case 'fuse':
      return (
        <>
          {box}
          <path d="M0 -1.2v2.4" />
        </>
      );
    case 'capacitor':
      return plates;
    case 'electrolytic':
      return (
        <>
          <path d="M0 -2v1.6M0 0.3v1.7" />
          <rect x="-0.9" y="-0.45" width="1.8" height="0.3" />
          <rect x="-0.9" y="0.05" width="1.8" height="0.3" fill="currentColor" />
          <path d="M0.35 -1.1h0.6m-0.3 -0.3v0.6" />
        </>
      );
    case 'inductor':
      return <path d="M0 -2v0.6q0.9 0 0.9 0.35t-0.9 0.35q0.9 0 0.9 0.35t-0.9 0.35q0.9 0 0.9 0.35t-0.9 0.35q0.9 0 0.9 0.35t-0.9 0.35v0.6" />;
    case 'diode':
      return diode;
    case 'zener':
      return (
        <>
          {diode}
          <path d="M-0.8 0.6v0.4M0.8 0.6v-0.4" />
        </>
      );
    case 'led':
      return (
        <>
          {diode}
          {rays}
        </>
      );
    case 'crystal':
      return (
        <>
          <path d="M0 -2v1.1M0 0.9v1.1M-0.8 -0.9h1.6M-0.8 0.9h1.6" />
          <rect x="-0.8" y="-0.55" width="1.6" height="1.1" />
        </>
      );
    case 'switch':
      return (
        <>
          <path d="M0 -2v1M0 1v1M0 1L0.8 -0.9" />
          <circle cy="-1" r="0.15" />
          <circle cy="1" r="0.15" />
        </>
      );
    case 'lamp':
      return (
        <>
          <path d="M0 -2v1.1M0 0.9v1.1M-0.64 -0.64L0.64 0.64M-0.64 0.64L0.64 -0.64" />
          <circle r="0.9" />
        </>
      );
    case 'link':
      return <path d="M0 -2q0.8 2 0 4" />;
    case 'coil':
      return (
        <>
          <path d="M0 -2v1M0 1v1M-1.4 1L-0.4 -1" />
          <rect x="-1.8" y="-1" width="3.6" height="2" />
        </>
      );
    case 'speaker':
      return (
        <>
          <path d="M0 -2v1.2M0 0.8v1.2M0.4 -0.8L1.8 -1.7V1.7L0.4 0.8" />
          <rect x="-0.5" y="-0.8" width="0.9" height="1.6" />
        </>
      );
    case 'microphone':
      return (
        <>
          <path d="M0 -2v1.1M0 0.9v1.1M-1.3 -1v2" />
          <circle cx="-0.3" r="1" />
        </>
      );
    case 'source':
    case 'battery':
      return (
        <>
          <path d="M0 -3v1.5M0 1.5V3M0.5 -2.2h0.7m-0.35 -0.35v0.7" />
          <circle r="1.5" />
          <path d="M0 -0.9v1.8" />
        </>
      );
    case 'winding':
      return (
        <>
          <path d="M0 -3v1.5M0 1.5V3M-0.9 0q0.45 -1 0.9 0t0.9 0" />
          <circle r="1.5" />
        </>
      );
    case 'npn':
      return transistor(arrow('M0.95 1.37l-0.75 -0.12l0.37 -0.6z'), true);
    case 'pnp':
      return transistor(arrow('M-0.5 -0.46l0.75 -0.12l-0.37 -0.6z'), false);
    case 'nmos':
      return fet(true);
    case 'pmos':
      return fet(false);
    case 'njf':
      return jfet(true);
    case 'pjf':
      return jfet(false);
    case 'opamp': {
      const [minus, plus] = form === 'b' ? [2, -2] : [-2, 2];
      return (
        <>
          <path d="M-3 -3.5L3 0L-3 3.5zM-4 -2h1M-4 2h1M3 0h1M0 -4v2.25M0 4v-2.25" />
          <path d={`M-2.6 ${minus}h0.8M-2.6 ${plus}h0.8m-0.4 -0.4v0.8`} />
        </>
      );
    }
    case 'changeover':
      return <path d="M0 2v-1L-0.9 -1.1M-1 -2v0.9M1 -2v0.9" />;
    case 'bridge':
      return <path d="M0 -3L3 0L0 3L-3 0z" />;
    case 'transformer':
      return <path d="M-3 -3h1.2v6H-3M3 -3H1.8v6H3M-0.3 -3.2v6.4M0.3 -3.2v6.4" />;
    case 'testpoint':
      return <path d="M0 0v-0.8M-0.6 -1.4a0.6 0.6 0 1 1 1.2 0a0.6 0.6 0 1 1 -1.2 0" />;
    default:
      return null;
  }
}
