/** Where commands stand in the menu and in the help. */
export const commandGroups = {
  stage: 'Stage',
  play: 'Play',
  wall: 'Wall',
  record: 'Record',
  transport: 'Transport',
  edit: 'Edit',
  patch: 'Patch',
  module: 'Modules',
  scene: 'Scene',
  view: 'View',
} as const;

/** One thing that can be done, wherever it is called from. Menus, keys, tooltips and help are made from it. */
export interface Command {
  /** Group and name; never shown. */
  id: `${keyof typeof commandGroups}.${string}`;
  label: string;
  /** One sentence for tooltips and help. */
  help: string;
  /** What a performer would type for it that stands neither in its label nor in its help. */
  words?: readonly string[];
  /** Keys that run it, as `parseKeys` reads them; the first is the one that is shown. */
  keys?: readonly string[];
  /** Its keys also work on stage windows, and while text is typed. For what can't wait. */
  everywhere?: true;
  /** Whether it applies now; absent: always. */
  when?(): boolean;
  /** For switches: whether it is on. */
  isOn?(): boolean;
  run(): void;
}

export const groupOf = ({ id }: Command): keyof typeof commandGroups =>
  id.slice(0, id.indexOf('.')) as keyof typeof commandGroups;
