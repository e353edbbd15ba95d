/** The layers that can be switched on the sheet. */
export interface Layers {
  detectors: boolean;
  signals: boolean;
  lengths: boolean;
}

/** What the parts above the stages ask about the one that is open. */
export interface StageTraits {
  id: string;
  /** Whose values of the rule program are shown: of what is tried by hand, of a run, or none. */
  knows: 'nothing' | 'trial' | 'run';
  /** Things can be moved, pointed at and changed. */
  edits?: boolean;
  /** Things get their names here. */
  names?: boolean;
  /** Axles are set down and turnouts thrown by hand, and the sheet shows what comes of it. */
  tries?: boolean;
}

/** What is open, and how the sheet is looked at. */
export interface ViewSlice {
  stage: StageTraits;
  layers: Layers;
  /** The part of the line that the sheet shows, the same in every stage; the beginning of it until somebody moves it. */
  view?: { scale: number; from: number };
  /** Single letters act on the sheet; some people switch that off. */
  keysOn: boolean;
  trayOpen: boolean;
  /** What was begun to be typed where it stands no longer open (`useKept`), by name. Nothing is drawn by it. */
  readonly kept: Map<string, unknown>;
  /** The window that stands open over the workbench. */
  window?: 'history' | 'runs' | 'find' | 'keys' | 'export' | 'rules';
}
