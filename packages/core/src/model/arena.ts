import { Group, Identifier, ListOf, Name, OneOf, Optional, Quantity, Text } from './field';
import { LIMITS } from './limits';

const coordinate = (label: string) => Quantity({ label, unit: 'm', min: -500, max: 500, about: 'from the middle of the arena' });
const degrees = () => Quantity({ label: 'Facing', unit: '°', min: -360, max: 360, about: 'counter-clockwise from the x axis' });

/** A corner of a shape, or a place. */
export class Corner {
  @coordinate('x') x = 0;
  @coordinate('y') y = 0;
}

/** A convex shape nobody walks through. It blocks lines that pass below its height: a low one is cover. */
export class Wall {
  @Identifier() id: string;
  @Name() name: string;
  @Quantity({ label: 'Height', unit: 'm', min: 0.01, max: 100, about: 'lines that pass over it are clear' }) height = 3;
  @ListOf(() => Corner, LIMITS.corners) corners: Corner[] = [];
}

/** A convex stretch of ground of some kind, which units may be confined to or kept from. */
export class Ground {
  @Identifier() id: string;
  @Name() name: string;
  @Text(80) kind = '';
  @ListOf(() => Corner, LIMITS.corners) corners: Corner[] = [];
}

/** A convex stretch that raises a flag when somebody enters it. */
export class Zone {
  @Identifier() id: string;
  @Name() name: string;
  @OneOf(['party', 'enemies', 'anybody']) by: 'party' | 'enemies' | 'anybody' = 'party';
  /** Only units of this role. */
  @Optional() @Text(40) role?: string;
  /** The flag that is raised. */
  @Identifier() flag: string;
  @ListOf(() => Corner, LIMITS.corners) corners: Corner[] = [];
}

/** A place to go to; with health, something to defend: it stands on the party's side and can be destroyed. */
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

export class SpawnPoint {
  @Identifier() id: string;
  @Name() name: string;
  @coordinate('x') x = 0;
  @coordinate('y') y = 0;
  @Quantity({ label: 'Scatter', unit: 'm', min: 0, max: 100, about: 'units appear within this radius of the point' }) scatter = 0;
  @degrees() facing = 0;
}

export class PartyStart {
  @coordinate('x') x = 0;
  @coordinate('y') y = 0;
  @degrees() facing = 0;
}

/** Where the fight takes place: a rectangle around the origin. */
export class Arena {
  @Identifier() id: string;
  @Name() name: string;
  @Optional() @Text(2000) notes?: string;
  @Quantity({ label: 'Width', unit: 'm', min: 2, max: 1000, about: 'along x' }) width = 40;
  @Quantity({ label: 'Depth', unit: 'm', min: 2, max: 1000, about: 'along y' }) depth = 30;
  /** Only matters where there are walls or ground areas. */
  @Quantity({ label: 'Grid', unit: 'm', min: 0.05, max: 20, about: 'cell size on which ways around walls are found' }) grid = 0.5;
  @ListOf(() => SpawnPoint, LIMITS.spawnPoints) spawnPoints: SpawnPoint[] = [];
  @Group(() => PartyStart) partyStart: PartyStart = new PartyStart();
  @ListOf(() => Wall, LIMITS.walls) walls: Wall[] = [];
  @ListOf(() => Ground, LIMITS.grounds) ground: Ground[] = [];
  @ListOf(() => Zone, LIMITS.zones) zones: Zone[] = [];
  @ListOf(() => Point, LIMITS.points) points: Point[] = [];
}
