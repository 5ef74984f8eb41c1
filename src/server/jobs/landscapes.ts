import path from 'node:path';
import type { Landscape } from '@/core/project/schema';

/** The file of a landscape that ships. */
export const landscapeFile = (name: Landscape): string => path.join(process.cwd(), 'assets', 'surroundings', `${name}.hdr`);
