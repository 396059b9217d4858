import { randomUUID } from 'node:crypto';

export const newId = (): string => randomUUID().replaceAll('-', '').slice(0, 20);
