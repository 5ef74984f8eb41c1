/**
 * Layers of a convolutional network over pictures. A picture lies row by row, all channels of a pixel together, with a
 * border of one pixel of zeros all round. Weights lie in blocks of eight outputs: tap by tap, input by input, eight at a time.
 */

/** A row's piece of 6 pixels, eight outputs: nine taps of every input, then no value below 0. */
function block6(inp: usize, rowBytes: usize, pixel: usize, weights: usize, bias: usize, out: usize, outPixel: usize): void {
  const low = v128.load(bias);
  const high = v128.load(bias, 16);
  let a0 = low;
  let b0 = high;
  let a1 = low;
  let b1 = high;
  let a2 = low;
  let b2 = high;
  let a3 = low;
  let b3 = high;
  let a4 = low;
  let b4 = high;
  let a5 = low;
  let b5 = high;
  let w = weights;
  for (let row: u32 = 0; row < 3; row++) {
    let at = inp + row * rowBytes;
    // The three taps of a row lie one behind the other in memory.
    const end = at + pixel * 3;
    while (at < end) {
      const w0 = v128.load(w);
      const w1 = v128.load(w, 16);
      w += 32;
      let v = v128.load_splat<f32>(at);
      a0 = f32x4.add(a0, f32x4.mul(v, w0));
      b0 = f32x4.add(b0, f32x4.mul(v, w1));
      v = v128.load_splat<f32>(at + pixel * 1);
      a1 = f32x4.add(a1, f32x4.mul(v, w0));
      b1 = f32x4.add(b1, f32x4.mul(v, w1));
      v = v128.load_splat<f32>(at + pixel * 2);
      a2 = f32x4.add(a2, f32x4.mul(v, w0));
      b2 = f32x4.add(b2, f32x4.mul(v, w1));
      v = v128.load_splat<f32>(at + pixel * 3);
      a3 = f32x4.add(a3, f32x4.mul(v, w0));
      b3 = f32x4.add(b3, f32x4.mul(v, w1));
      v = v128.load_splat<f32>(at + pixel * 4);
      a4 = f32x4.add(a4, f32x4.mul(v, w0));
      b4 = f32x4.add(b4, f32x4.mul(v, w1));
      v = v128.load_splat<f32>(at + pixel * 5);
      a5 = f32x4.add(a5, f32x4.mul(v, w0));
      b5 = f32x4.add(b5, f32x4.mul(v, w1));
      at += 4;
    }
  }
  const zero = f32x4.splat(0);
  v128.store(out, f32x4.max(a0, zero));
  v128.store(out, f32x4.max(b0, zero), 16);
  v128.store(out + outPixel * 1, f32x4.max(a1, zero));
  v128.store(out + outPixel * 1, f32x4.max(b1, zero), 16);
  v128.store(out + outPixel * 2, f32x4.max(a2, zero));
  v128.store(out + outPixel * 2, f32x4.max(b2, zero), 16);
  v128.store(out + outPixel * 3, f32x4.max(a3, zero));
  v128.store(out + outPixel * 3, f32x4.max(b3, zero), 16);
  v128.store(out + outPixel * 4, f32x4.max(a4, zero));
  v128.store(out + outPixel * 4, f32x4.max(b4, zero), 16);
  v128.store(out + outPixel * 5, f32x4.max(a5, zero));
  v128.store(out + outPixel * 5, f32x4.max(b5, zero), 16);
}

/** A row's piece of 1 pixel, eight outputs: nine taps of every input, then no value below 0. */
function block1(inp: usize, rowBytes: usize, pixel: usize, weights: usize, bias: usize, out: usize, outPixel: usize): void {
  const low = v128.load(bias);
  const high = v128.load(bias, 16);
  let a0 = low;
  let b0 = high;
  let w = weights;
  for (let row: u32 = 0; row < 3; row++) {
    let at = inp + row * rowBytes;
    // The three taps of a row lie one behind the other in memory.
    const end = at + pixel * 3;
    while (at < end) {
      const w0 = v128.load(w);
      const w1 = v128.load(w, 16);
      w += 32;
      let v = v128.load_splat<f32>(at);
      a0 = f32x4.add(a0, f32x4.mul(v, w0));
      b0 = f32x4.add(b0, f32x4.mul(v, w1));
      at += 4;
    }
  }
  const zero = f32x4.splat(0);
  v128.store(out, f32x4.max(a0, zero));
  v128.store(out, f32x4.max(b0, zero), 16);
}

/**
 * A convolution of 3 × 3 pixels with a bias, and no value below 0.
 *
 * @param inp picture of `cin` channels @param out picture of `cout` channels, a multiple of eight
 * @param width of both, pixels @param height of both
 */
export function convolve(inp: usize, cin: u32, weights: usize, bias: usize, out: usize, cout: u32, width: u32, height: u32): void {
  const pixel: usize = (<usize>cin) << 2;
  const outPixel: usize = (<usize>cout) << 2;
  const rowBytes: usize = <usize>(width + 2) * pixel;
  const outRow: usize = <usize>(width + 2) * outPixel;
  const wBlock: usize = <usize>cin * 9 * 32;
  for (let y: u32 = 0; y < height; y++) {
    const row = inp + <usize>y * rowBytes;
    const to = out + <usize>(y + 1) * outRow + outPixel;
    for (let o: u32 = 0; o < cout; o += 8) {
      const w = weights + <usize>(o >> 3) * wBlock;
      const b = bias + ((<usize>o) << 2);
      const at = to + ((<usize>o) << 2);
      let x: u32 = 0;
      for (; x + 6 <= width; x += 6) block6(row + <usize>x * pixel, rowBytes, pixel, w, b, at + <usize>x * outPixel, outPixel);
      for (; x < width; x++) block1(row + <usize>x * pixel, rowBytes, pixel, w, b, at + <usize>x * outPixel, outPixel);
    }
  }
}

/** The largest of every 2 × 2 pixels. @param c channels, a multiple of four @param width of the result @param height of the result */
export function pool(inp: usize, c: u32, out: usize, width: u32, height: u32): void {
  const pixel: usize = (<usize>c) << 2;
  const rowBytes: usize = <usize>(width * 2 + 2) * pixel;
  const outRow: usize = <usize>(width + 2) * pixel;
  for (let y: u32 = 0; y < height; y++)
    for (let x: u32 = 0; x < width; x++) {
      const a = inp + <usize>(y * 2 + 1) * rowBytes + <usize>(x * 2 + 1) * pixel;
      const o = out + <usize>(y + 1) * outRow + <usize>(x + 1) * pixel;
      for (let k: usize = 0; k < pixel; k += 16)
        v128.store(
          o + k,
          f32x4.max(f32x4.max(v128.load(a + k), v128.load(a + k + pixel)), f32x4.max(v128.load(a + k + rowBytes), v128.load(a + k + rowBytes + pixel))),
        );
    }
}

/** A picture of half the size, every pixel four times, and one of the whole size, channel upon channel. @param width of the result @param height of the result */
export function join(half: usize, ca: u32, whole: usize, cb: u32, out: usize, width: u32, height: u32): void {
  const pa: usize = (<usize>ca) << 2;
  const pb: usize = (<usize>cb) << 2;
  const po = pa + pb;
  const rowA: usize = <usize>(width / 2 + 2) * pa;
  const rowB: usize = <usize>(width + 2) * pb;
  const outRow: usize = <usize>(width + 2) * po;
  for (let y: u32 = 0; y < height; y++)
    for (let x: u32 = 0; x < width; x++) {
      const o = out + <usize>(y + 1) * outRow + <usize>(x + 1) * po;
      memory.copy(o, half + <usize>(y / 2 + 1) * rowA + <usize>(x / 2 + 1) * pa, pa);
      memory.copy(o + pa, whole + <usize>(y + 1) * rowB + <usize>(x + 1) * pb, pb);
    }
}
