import { kitSchema } from '@/core/kit/schema';

export const dynamic = 'force-static';

/** The published schema of the kit file, as a download beside the app. */
export function GET(): Response {
  return Response.json(kitSchema);
}
