const ALPHABET = 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/';

/** Bytes of a base64 text (RFC 4648, padded), where neither a browser nor Node is taken for granted. */
export function fromBase64(base64: string): Uint8Array<ArrayBuffer> {
  const value = new Uint8Array(128);
  for (let i = 0; i < 64; i++) value[ALPHABET.charCodeAt(i)] = i;
  const pad = base64.endsWith('==') ? 2 : base64.endsWith('=') ? 1 : 0;
  const out = new Uint8Array((base64.length / 4) * 3 - pad);
  for (let i = 0, k = 0; i < base64.length; i += 4) {
    const n =
      (value[base64.charCodeAt(i)] << 18) | (value[base64.charCodeAt(i + 1)] << 12) | (value[base64.charCodeAt(i + 2)] << 6) | value[base64.charCodeAt(i + 3)];
    out[k++] = n >> 16;
    if (k < out.length) out[k++] = (n >> 8) & 255;
    if (k < out.length) out[k++] = n & 255;
  }
  return out;
}
