/** Everyday words for what one can do, beside the names the interface uses: the list of actions finds both. */
const SAYINGS: readonly (readonly [RegExp, string])[] = [
  [/level above/, 'storey upper floor first floor upstairs attic loft add new'],
  [/level below/, 'storey basement cellar lower floor downstairs add new'],
  [/building apart/, 'garage shed annexe outbuilding add new'],
  [/room by its corners/, 'rectangle square box space new'],
  [/walls one by one|^Draw an arc/, 'partition chain line curve round'],
  [/boundary/, 'divider zone open plan virtual line'],
  [/recess/, 'alcove niche chimney breast set back'],
  [/Box something in/, 'boxing pipe duct casing cupboard'],
  [/column|post/, 'pillar support pole'],
  [/Split a wall/, 'cut break divide'],
  [/guide line/, 'helper construction line axis'],
  [/whole line of a wall/, 'run facade align'],
  [/Mirror/, 'flip reflect reverse'],
  [/as it stands/, 'existing before survey current'],
  [/as it will be/, 'after proposed new design'],
  [/door/, 'entrance doorway leaf opening'],
  [/window/, 'glazing light opening'],
  [/passage|pass-through/, 'opening arch archway hatch doorway'],
  [/rooflight/, 'skylight roof window'],
  [/roof/, 'cover top pitched gable hip'],
  [/stair/, 'steps staircase flight stairs'],
  [/void/, 'hole opening gallery atrium cut out floor'],
  [/Draw a/, 'add new make create'],
  [/Place|Set a/, 'add new insert put'],
  [/slab|platform|mezzanine|gallery/, 'mezzanine platform deck floor plate concrete'],
  [/steps/, 'outdoor garden stairs'],
  [/beam/, 'lintel joist girder timber'],
  [/Draw outside/, 'garden site landscape ground'],
  [/lawn/, 'grass'],
  [/pool/, 'water pond swimming'],
  [/path|paving|terrace/, 'patio pavement driveway'],
  [/hedge|fence/, 'border boundary screen'],
  [/Duplicate/, 'copy clone again'],
  [/Delete/, 'remove erase clear'],
  [/Turn what/, 'rotate spin'],
  [/whole level/, 'zoom all everything fit'],
  [/See the model/, 'view camera side elevation'],
  [/Stand back/, 'zoom fit all whole reset view'],
  [/Walk through/, 'first person inside tour visit'],
  [/translucent/, 'transparent x-ray glass see through ghost'],
  [/: lines/, 'hidden line sketch wireframe drawing'],
  [/: white/, 'clay plain model card'],
  [/drawing and model|drawing alone|model alone/, 'split panes layout plan 3d side by side'],
  [/millimetres and feet/, 'units metric imperial inches cm'],
  [/^Apply/, 'finish material paint colour texture cover'],
  [/Go to Boards/, 'mood board presentation pdf sheet'],
  [/Go to Schedules/, 'list quantities cost table take-off'],
  [/Go to Views/, 'render picture photo image camera'],
  [/Go to Light/, 'lamp lighting sun daylight surroundings landscape backdrop view through the window panorama'],
  [/Undo/, 'back revert'],
  [/Redo/, 'again forward repeat'],
];

/** The everyday words that lead to an action. */
export const sayingsFor = (name: string): string =>
  SAYINGS.filter(([pattern]) => pattern.test(name))
    .map(([, words]) => words)
    .join(' ');

/** Whether all words that are typed stand in the name of an action or in what people call it. */
export function meansAction(name: string, typed: string): boolean {
  const all = `${name} ${sayingsFor(name)}`.toLowerCase();
  return typed
    .toLowerCase()
    .split(/\s+/)
    .every((word) => all.includes(word));
}
