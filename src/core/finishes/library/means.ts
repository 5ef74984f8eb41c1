/**
 * Mean colours of what is printed or striped in several colours, as its maker draws it. Working them out takes longer
 * than all the rest of the library, and the library is loaded in every worker: they are written down, and a test holds
 * them to `meanOfMatter`.
 */
export const MEANS: Readonly<Record<string, string>> = {
  'wallpaper.stripe-chalk': '#ddd5c6',
  'wallpaper.stripe-blue': '#c8d1d7',
  'wallpaper.stripe-garden': '#bbc0ad',
  'wallpaper.sprig-sage': '#dedbcc',
  'wallpaper.sprig-blue': '#dadcdd',
  'wallpaper.flower-rose': '#eadad0',
  'wallpaper.leaf-forest': '#395041',
  'wallpaper.leaf-ochre': '#e5d6b9',
  'wallpaper.star-night': '#534e4f',
  'wallpaper.trellis-stone': '#d9d1c1',
  'wallpaper.trellis-teal': '#c5ceca',
  'wallpaper.scallop-sand': '#d5c1a3',
  'wallpaper.scallop-ink': '#877d65',
  'wallpaper.key-terracotta': '#cba38f',
  'wallpaper.wave-grey': '#d0cfca',
  'wallpaper.dot-mustard': '#e8dec9',
  'tile.cement-star': '#bcb8af',
  'tile.cement-quarter': '#b6b4ac',
  'tile.cement-leaf': '#c6c9ba',
  'tile.fish-scale': '#427b81',
  'carpet.stripe': '#a09181',
  'carpet.kelim': '#b07760',
  'carpet.key': '#b4ad97',
  'cloth.print-sprig': '#dcd6c3',
  'cloth.print-flower': '#d2d6d4',
  'cloth.print-dot': '#e3dbcf',
  'cloth.print-wave': '#b5b5aa',
  'cloth.stripe-ticking': '#c4c0b5',
  'cloth.stripe-deck': '#b9bba7',
  'cloth.check-kitchen': '#c1aca2',
};
