import { kitSchema } from '@/core/kit/schema/document';

export const dynamic = 'force-static';

/** The published schema of kit files. */
export const GET = () => Response.json(kitSchema);
