declare const validate: { (data: unknown): boolean; errors?: { instancePath: string; keyword: string; params: Record<string, unknown> }[] | null };
export default validate;
