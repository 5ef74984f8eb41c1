import { deflateRawSync, inflateRawSync } from 'node:zlib';

/**
 * What the records of a log have in common, the most common last: a deflated record that begins from it is half as
 * long (RFC 1951; the dictionary is part of the form the records are kept in and never changes).
 */
const DICTIONARY = Buffer.from(
  [
    '"finishes":{"frame":"paint.',
    '"kind":"ceiling"},"status":"new"},"bulge":0,"type":null,"thickness":0.1,"turned":false,"offset":0,"base":0,"top":{',
    '"level":"ground","kind":"wall","start":"corner-","end":"corner-',
    '"rotation":0,"size":{"width":0.6,"depth":0.6,"height":0.9},"lamp":null,"elevation":0,',
    '"faces":{},"floor":null,"walls":null,"ceiling":null,"cover":{"kind":"flat","height":null},"label":{"x":0,"y":0},',
    '{"op":"remove","path":["openings","opening-',
    '{"op":"add","path":["pieces","piece-',
    '{"op":"replace","path":["rooms","room-',
    '{"op":"replace","path":["corners","corner-","x"],"value":',
    '{"op":"replace","path":["corners","corner-","y"],"value":-',
    '{"args":{"wall":"wall-","offset":0.05},"patches":[{"op":"replace","path":["corners","corner-',
    '"]}],"inverse":[{"op":"replace","path":["corners","corner-',
  ].join(''),
);

/** JSON of a value, deflated. */
export const pack = (value: unknown): Buffer => deflateRawSync(JSON.stringify(value), { dictionary: DICTIONARY, level: 9 });

/** The value of packed JSON. @throws when the bytes are not what `pack` made */
export const unpack = (bytes: Buffer): unknown => JSON.parse(inflateRawSync(bytes, { dictionary: DICTIONARY }).toString('utf8')) as unknown;
