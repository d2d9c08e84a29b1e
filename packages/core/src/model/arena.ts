import { About, Group, Identifier, ListOf, Name, OneOf, Optional, Quantity, Refers, RefersByName, Text } from './field';
import { LIMITS } from './limits';

const coordinate = (label: string) => Quantity({ label, unit: 'm', min: -500, max: 500, about: 'from the middle of the arena' });
const degrees = () => Quantity({ label: 'Facing', unit: '°', min: -360, max: 360, about: 'counter-clockwise from the x axis' });

@About('A corner of a shape, or a place.')
export class Corner {
  @coordinate('x') x = 0;
  @coordinate('y') y = 0;
}

@About('A convex shape nobody walks through. It blocks lines that pass below its height: a low one is cover.')
export class Wall {
  @Identifier() id: string;
  @Name() name: string;
  @Quantity({ label: 'Height', unit: 'm', min: 0.01, max: 100, about: 'lines that pass over it are clear' }) height = 3;
  @ListOf(() => Corner, LIMITS.corners, { label: 'Corners', about: 'of a convex shape, in order' }) corners: Corner[] = [];
}

@About('A convex stretch of ground of some kind, which units may be confined to or kept from.')
export class Ground {
  @Identifier() id: string;
  @Name() name: string;
  @RefersByName({ to: ['ground'], loose: true }, 80, { label: 'Kind', about: 'what movement speaks of' }) kind = '';
  @ListOf(() => Corner, LIMITS.corners, { label: 'Corners', about: 'of a convex shape, in order' }) corners: Corner[] = [];
}

@About('A convex stretch that raises a flag when somebody enters it.')
export class Zone {
  @Identifier() id: string;
  @Name() name: string;
  @OneOf({ party: 'the party', enemies: 'enemies', anybody: 'anybody' }, { label: 'Entered by' }) by: 'party' | 'enemies' | 'anybody' =
    'party';
  @Optional() @RefersByName({ to: ['role'], loose: true }, 40, { label: 'Of role', about: 'only units of this role' }) role?: string;
  @Refers({ to: ['flag'] }, { label: 'Raises flag' }) flag: string;
  @ListOf(() => Corner, LIMITS.corners, { label: 'Corners', about: 'of a convex shape, in order' }) corners: Corner[] = [];
}

@About('A place to go to; with health, something may stand there that can be destroyed: an encounter says whose it is.')
export class Point {
  @Identifier() id: string;
  @Name() name: string;
  @coordinate('x') x = 0;
  @coordinate('y') y = 0;
  @Quantity({ label: 'Radius', unit: 'm', min: 0.05, max: 20, about: 'of what stands there' }) radius = 0.5;
  @Quantity({ label: 'Height', unit: 'm', min: 0.05, max: 40, about: 'of what stands there' }) height = 1;
  @Optional()
  @Quantity({ label: 'Health', unit: 'hp', min: 0.001, max: 1e7, about: 'absent: nothing stands there' })
  health?: number;
}

@About('Where units appear.')
export class SpawnPoint {
  @Identifier() id: string;
  @Name() name: string;
  @coordinate('x') x = 0;
  @coordinate('y') y = 0;
  @Quantity({ label: 'Scatter', unit: 'm', min: 0, max: 100, about: 'units appear within this radius of the point' }) scatter = 0;
  @degrees() facing = 0;
}

@About('Where the party stands at first.')
export class PartyStart {
  @coordinate('x') x = 0;
  @coordinate('y') y = 0;
  @degrees() facing = 0;
}

@About('Where the fight takes place: a rectangle around the origin.')
export class Arena {
  @Identifier() id: string;
  @Name() name: string;
  @Optional() @Text(2000, { label: 'Notes' }) notes?: string;
  @Quantity({ label: 'Width', unit: 'm', min: 2, max: 1000, about: 'along x' }) width = 40;
  @Quantity({ label: 'Depth', unit: 'm', min: 2, max: 1000, about: 'along y' }) depth = 30;
  @Quantity({
    label: 'Grid',
    unit: 'm',
    min: 0.05,
    max: 20,
    about: 'cell size on which ways around walls are found; only matters where there are walls or ground areas',
  })
  grid = 0.5;
  @ListOf(() => SpawnPoint, LIMITS.spawnPoints, { label: 'Spawn points', defines: 'spawnPoint' }) spawnPoints: SpawnPoint[] = [];
  @Group(() => PartyStart, { label: 'Party start' }) partyStart: PartyStart = new PartyStart();
  @ListOf(() => Wall, LIMITS.walls, { label: 'Walls' }) walls: Wall[] = [];
  @ListOf(() => Ground, LIMITS.grounds, { label: 'Ground' }) ground: Ground[] = [];
  @ListOf(() => Zone, LIMITS.zones, { label: 'Zones', defines: 'zone' }) zones: Zone[] = [];
  @ListOf(() => Point, LIMITS.points, { label: 'Points', defines: 'point' }) points: Point[] = [];
}
