/** A page that shows a picture all round: one file, opened anywhere without a network. */

const escaped = (text: string): string => text.replace(/[&<>"']/g, (c) => `&#${c.charCodeAt(0)};`);

/** Looks about the picture: longitude and latitude of the middle, and how wide one sees, degrees. */
const VIEWER = `
const canvas = document.querySelector('canvas');
const gl = canvas.getContext('webgl', { antialias: false, preserveDrawingBuffer: true });
const say = (text) => { document.querySelector('p').textContent = text; };
let lon = 0, lat = 0, fov = 75, drawn = false, frame = 0;
const make = (kind, source) => { const s = gl.createShader(kind); gl.shaderSource(s, source); gl.compileShader(s); return s; };
let at = null;
function begin() {
  const program = gl.createProgram();
  gl.attachShader(program, make(gl.VERTEX_SHADER, 'attribute vec2 p; varying vec2 q; void main() { q = p; gl_Position = vec4(p, 0., 1.); }'));
  gl.attachShader(program, make(gl.FRAGMENT_SHADER, 'precision highp float; varying vec2 q; uniform sampler2D picture; uniform vec4 eye; uniform float aspect;' +
    'void main() { vec3 d = normalize(vec3(1., q.x * eye.z * aspect, q.y * eye.z)); float s = sin(eye.y), c = cos(eye.y);' +
    'vec3 e = vec3(d.x * c - d.z * s, d.y, d.x * s + d.z * c);' +
    'float u = (atan(e.y, e.x) + eye.x) / 6.2831853 + .5; gl_FragColor = texture2D(picture, vec2(fract(u), .5 - asin(clamp(e.z, -1., 1.)) / 3.14159265)); }'));
  gl.linkProgram(program); gl.useProgram(program);
  gl.bindBuffer(gl.ARRAY_BUFFER, gl.createBuffer());
  gl.bufferData(gl.ARRAY_BUFFER, new Float32Array([-1, -1, 3, -1, -1, 3]), gl.STATIC_DRAW);
  gl.enableVertexAttribArray(0); gl.bindAttribLocation(program, 0, 'p');
  gl.vertexAttribPointer(gl.getAttribLocation(program, 'p'), 2, gl.FLOAT, false, 0, 0);
  gl.bindTexture(gl.TEXTURE_2D, gl.createTexture());
  for (const [k, v] of [[gl.TEXTURE_MIN_FILTER, gl.LINEAR], [gl.TEXTURE_MAG_FILTER, gl.LINEAR], [gl.TEXTURE_WRAP_S, gl.CLAMP_TO_EDGE], [gl.TEXTURE_WRAP_T, gl.CLAMP_TO_EDGE]]) gl.texParameteri(gl.TEXTURE_2D, k, v);
  at = { eye: gl.getUniformLocation(program, 'eye'), aspect: gl.getUniformLocation(program, 'aspect') };
}
function draw() {
  if (frame || !drawn) return;
  frame = requestAnimationFrame(() => {
    frame = 0;
    const k = Math.min(2, devicePixelRatio), w = Math.round(innerWidth * k), h = Math.round(innerHeight * k);
    if (canvas.width !== w || canvas.height !== h) { canvas.width = w; canvas.height = h; }
    gl.viewport(0, 0, w, h);
    gl.uniform4f(at.eye, lon * Math.PI / 180, lat * Math.PI / 180, Math.tan(fov * Math.PI / 360), 0);
    gl.uniform1f(at.aspect, w / h);
    gl.drawArrays(gl.TRIANGLES, 0, 3);
    document.body.dataset.looking = Math.round(lon) + ' ' + Math.round(lat) + ' ' + Math.round(fov);
  });
}
function show(url) {
  const image = new Image();
  image.onload = () => {
    if (!at) begin();
    const most = gl.getParameter(gl.MAX_TEXTURE_SIZE);
    let source = image;
    if (image.width > most) { source = document.createElement('canvas'); source.width = most; source.height = most / 2; source.getContext('2d').drawImage(image, 0, 0, most, most / 2); }
    gl.texImage2D(gl.TEXTURE_2D, 0, gl.RGB, gl.RGB, gl.UNSIGNED_BYTE, source);
    drawn = true; draw();
  };
  image.onerror = () => say('The picture can’t be read.');
  image.src = url;
}
const turn = (x, y) => { lon = ((lon + x + 540) % 360) - 180; lat = Math.max(-90, Math.min(90, lat + y)); draw(); };
const widen = (k) => { fov = Math.max(25, Math.min(110, fov * k)); draw(); };
const fingers = new Map();
canvas.addEventListener('pointerdown', (e) => { fingers.set(e.pointerId, e); canvas.setPointerCapture(e.pointerId); });
canvas.addEventListener('pointermove', (e) => {
  const before = fingers.get(e.pointerId);
  if (!before) return;
  const k = fov / innerHeight;
  if (fingers.size === 1) turn((before.clientX - e.clientX) * k, (e.clientY - before.clientY) * k);
  else {
    const other = [...fingers.values()].find((f) => f.pointerId !== e.pointerId);
    const far = (f) => Math.hypot(f.clientX - other.clientX, f.clientY - other.clientY);
    widen(far(before) / Math.max(1, far(e)));
  }
  fingers.set(e.pointerId, e);
});
for (const over of ['pointerup', 'pointercancel']) canvas.addEventListener(over, (e) => fingers.delete(e.pointerId));
canvas.addEventListener('wheel', (e) => { e.preventDefault(); widen(Math.exp(e.deltaY / 800)); }, { passive: false });
const KEYS = { ArrowLeft: [-5, 0], ArrowRight: [5, 0], ArrowUp: [0, 5], ArrowDown: [0, -5] };
addEventListener('keydown', (e) => {
  if (KEYS[e.key]) turn(...KEYS[e.key]);
  else if (e.key === '+') widen(0.9);
  else if (e.key === '-') widen(1 / 0.9);
  else return;
  e.preventDefault();
});
addEventListener('resize', draw);
addEventListener('message', (e) => { if (typeof e.data?.picture === 'string') show(e.data.picture); });
if (!gl) say('This browser can’t show it: it has no WebGL.');
else if (document.body.dataset.picture) show(document.body.dataset.picture);
`;

/**
 * The page: it is turned by dragging or with the arrow keys, and seen wider or closer with the wheel, two fingers, + and −.
 *
 * @param nonce what lets its script run within another page whose policy asks for one
 * @param picture data URL of the equirectangular picture; left out, the page waits for one in a message `{ picture }`
 */
export const lookRoundPage = (title: string, picture?: string, nonce?: string): string => `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>${escaped(title)}</title>
<style>html, body { margin: 0; height: 100%; overflow: hidden; background: #ededeb; font: 13px system-ui, sans-serif; }
canvas { width: 100%; height: 100%; display: block; touch-action: none; cursor: grab; outline-offset: -3px; } canvas:active { cursor: grabbing; }
p { position: absolute; left: 14px; bottom: 10px; margin: 0; padding: 2px 8px; background: #f7f7f5; color: #1d1e1d; pointer-events: none; }</style>
</head>
<body${picture ? ` data-picture="${escaped(picture)}"` : ''}>
<canvas tabindex="0" role="img" aria-label="${escaped(title)}, all round. Turn with the arrow keys."></canvas>
<p>${escaped(title)}</p>
<script${nonce ? ` nonce="${escaped(nonce)}"` : ''}>${VIEWER}</script>
</body>
</html>
`;
