export function bundled(module: string): Promise<string>;
