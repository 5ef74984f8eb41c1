/** Type of OpenEXR files on their way: the light of a picture for print may be larger than any other picture. */
export const LIGHT_TYPE = 'image/x-exr';
