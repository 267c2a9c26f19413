declare const validate: { (data: unknown): boolean; errors?: { instancePath: string; message?: string; keyword: string }[] | null };
export default validate;
