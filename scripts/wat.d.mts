export function compiledWat(source: string): Promise<string>;
