import { Group, Identifier, ListOf, Name, OneOf, Optional, Planned, Quantity, Text, YesNo } from './field';
import { ArrayMinSize, ArrayMaxSize, IsArray, IsString } from 'class-validator';
import { LIMITS } from './limits';

const coordinate = (label: string) => Quantity({ label, unit: 'm', min: -500, max: 500, about: 'from the middle of the arena' });
const degrees = () => Quantity({ label: 'Facing', unit: '°', min: -360, max: 360, about: 'counter-clockwise from the x axis' });

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
  @ListOf(() => SpawnPoint, LIMITS.spawnPoints) spawnPoints: SpawnPoint[] = [];
  @Group(() => PartyStart) partyStart: PartyStart = new PartyStart();
  @Planned('walls') walls?: object[];
  @Planned('cover') cover?: object[];
  @Planned('ground') ground?: object[];
  @Planned('zones') zones?: object[];
  @Planned('points to go to') points?: object[];
}

export class Count {
  @Quantity({ label: 'At least', unit: '', min: 0, max: LIMITS.liveUnits, whole: true, about: 'fewest units' }) min = 1;
  @Quantity({ label: 'At most', unit: '', min: 0, max: LIMITS.liveUnits, whole: true, about: 'most units; drawn uniformly' }) max = 1;
}

export class WaveGroup {
  @Identifier() id: string;
  /** A unit. */
  @Identifier() enemy: string;
  @Planned('pools of enemies') pool?: object[];
  @Group(() => Count) count: Count = new Count();
  /** Spawn points of the arena, used in turn. */
  @IsArray() @ArrayMinSize(1) @ArrayMaxSize(LIMITS.spawnPoints) @IsString({ each: true }) at: string[];
  @OneOf(['inTurn'], ['each', 'random', 'nearest', 'farthest']) rule: 'inTurn' = 'inTurn';
  @Quantity({ label: 'Apart by', unit: 's', min: 0, max: 600, about: 'time between units of the group' }) spacing = 0;
  /** Knows of the party from the start. */
  @YesNo() alerted = false;
  @Planned('a forced target') target?: string;
  @Planned('elite tweaks') elite?: object[];
  @Planned('leaving') leaves?: object;
}

export class Wave {
  @Identifier() id: string;
  @Name() name: string;
  @OneOf(['atOnce'], ['clock', 'defeated', 'condition', 'timeout']) start: 'atOnce' = 'atOnce';
  @Quantity({ label: 'Delay', unit: 's', min: 0, max: 600, about: 'from its start to its first unit' }) delay = 0;
  @ListOf(() => WaveGroup, LIMITS.groups) groups: WaveGroup[] = [];
  @Planned('repeats') repeat?: object;
}

export class PartyMember {
  @Identifier() id: string;
  /** A unit. */
  @Identifier() unit: string;
}

export class Encounter {
  @Identifier() id: string;
  @Name() name: string;
  @Optional() @Text(2000) notes?: string;
  @OneOf(['continuous'], ['rounds']) clock: 'continuous' = 'continuous';
  /** An arena. */
  @Identifier() arena: string;
  @ListOf(() => PartyMember, LIMITS.party) party: PartyMember[] = [];
  /** This version carries one wave. */
  @ListOf(() => Wave, 1) waves: Wave[] = [];
  @Quantity({ label: 'Time limit', unit: 's', min: 0.1, max: LIMITS.encounterSeconds, about: 'the fight ends here at the latest' })
  limit = 120;
  @Planned('encounter events') events?: object[];
  @Planned('attack slots') slots?: object[];
  @Planned('a cap on living units') alive?: object;
  @Planned('allies') allies?: object[];
  @Planned('ends of an encounter') ends?: object;
}
