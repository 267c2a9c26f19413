import { documentOf } from '@/core/kit';
import { DEMOS } from '@/stand-in';

export const dynamic = 'force-static';
export const dynamicParams = false;

const BUILT = { id: 'demo', at: '2026-01-01T00:00:00.000Z' };

/** Per demo: the kit file, its deck and its parts list, as open formats to look at and to edit. */
function files(): { name: string; text: string }[] {
  return DEMOS.flatMap((demo) => {
    const kit = demo.kit({ id: `demo-${demo.slug}`, at: BUILT.at });
    const rows = kit.sheet.lines.map((l) =>
      [`"${l.refs.join(',')}"`, l.kind, `"${l.label}"`, l.tolerance ? `-${-l.tolerance[0] * 100}%/+${l.tolerance[1] * 100}%` : '', l.quantity].join(','),
    );
    return [
      { name: `${demo.slug}.zesty.json`, text: JSON.stringify(documentOf(kit), null, 1) },
      { name: `${demo.slug}.cir`, text: kit.sheet.circuit?.deck ?? '' },
      { name: `${demo.slug}.csv`, text: ['refs,kind,value,tolerance,qty', ...rows].join('\n') },
    ];
  });
}

export function generateStaticParams(): { file: string }[] {
  return files().map((f) => ({ file: f.name }));
}

export async function GET(_request: Request, context: { params: Promise<{ file: string }> }): Promise<Response> {
  const { file } = await context.params;
  return new Response(files().find((f) => f.name === file)?.text ?? '', { headers: { 'content-type': 'text/plain; charset=utf-8' } });
}
