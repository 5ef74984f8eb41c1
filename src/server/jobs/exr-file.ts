import { open } from 'node:fs/promises';
import { ExrFile } from '@/core/formats/exr/exr';

/** Calls back for an open OpenEXR file. @throws DomainError of the reader */
export async function withExr<T>(file: string, work: (exr: ExrFile) => Promise<T>): Promise<T> {
  const handle = await open(file, 'r');
  try {
    const exr = await ExrFile.open(async (from, length) => {
      const buffer = Buffer.alloc(length);
      const { bytesRead } = await handle.read(buffer, 0, length, from);
      return buffer.subarray(0, bytesRead);
    });
    return await work(exr);
  } finally {
    await handle.close();
  }
}
