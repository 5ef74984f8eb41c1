import { emptyProject, type Project } from '../../project/schema';

/** A project with one picture, for tests of what holds files. @param hash of its file */
export const picturedProject = (name: string, image: string, radiance = image): Project => ({
  ...emptyProject('p', name),
  pictures: {
    a: {
      id: 'a',
      name: 'A',
      viewpoint: null,
      scheme: null,
      width: 400,
      height: 300,
      samples: 1,
      exposure: 0,
      white: null,
      warmth: 0,
      contrast: 0,
      saturation: 0,
      highlights: 0,
      lights: [],
      radiance,
      full: null,
      image,
      shot: null,
      moment: null,
      noise: null,
      state: null,
      made: '2026-01-01T00:00:00Z',
    },
  },
});
