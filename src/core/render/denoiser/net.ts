/** A step of the network: what it makes, and of what. */
export type Node =
  | { op: 'convolve'; id: string; of: string }
  | { op: 'pool'; id: string; of: string }
  /** What lies half as large is brought to the size of the other and put beside it. */
  | { op: 'join'; id: string; of: string; with: string };

const convolve = (id: string, of: string): Node => ({ op: 'convolve', id, of });
const pool = (id: string, of: string): Node => ({ op: 'pool', id, of });
const join = (id: string, of: string, beside: string): Node => ({ op: 'join', id, of, with: beside });

/** The net of Open Image Denoise: four times halved, four times doubled, with what was seen on the way down beside it. */
export const NET: readonly Node[] = [
  convolve('enc_conv0', 'input'),
  convolve('enc_conv1', 'enc_conv0'),
  pool('pool1', 'enc_conv1'),
  convolve('enc_conv2', 'pool1'),
  pool('pool2', 'enc_conv2'),
  convolve('enc_conv3', 'pool2'),
  pool('pool3', 'enc_conv3'),
  convolve('enc_conv4', 'pool3'),
  pool('pool4', 'enc_conv4'),
  convolve('enc_conv5a', 'pool4'),
  convolve('enc_conv5b', 'enc_conv5a'),
  join('join4', 'enc_conv5b', 'pool3'),
  convolve('dec_conv4a', 'join4'),
  convolve('dec_conv4b', 'dec_conv4a'),
  join('join3', 'dec_conv4b', 'pool2'),
  convolve('dec_conv3a', 'join3'),
  convolve('dec_conv3b', 'dec_conv3a'),
  join('join2', 'dec_conv3b', 'pool1'),
  convolve('dec_conv2a', 'join2'),
  convolve('dec_conv2b', 'dec_conv2a'),
  join('join1', 'dec_conv2b', 'input'),
  convolve('dec_conv1a', 'join1'),
  convolve('dec_conv1b', 'dec_conv1a'),
  convolve('dec_conv0', 'dec_conv1b'),
];
