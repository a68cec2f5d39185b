/** What can stand in for a tool that is missing, and what that risks. */
export interface Substitute {
  readonly tool: string;
  readonly risk: string;
}

/** By the beginning of the tool's name. Origin: common practice. */
const SUBSTITUTES: readonly { readonly of: RegExp; readonly substitutes: readonly Substitute[] }[] = [
  {
    of: /^stand-off/,
    substitutes: [
      {
        tool: 'slot 1.5',
        risk: 'turns on one side of the stand-off only: it slips, scars the rim, and can reach the board',
      },
      { tool: 'fine tweezers', risk: 'slip easily: metal beside the board' },
    ],
  },
  { of: /^IP\d/, substitutes: [{ tool: 'T', risk: 'has no hole for the pin: it does not enter without harm' }] },
  {
    of: /^PH000/,
    substitutes: [{ tool: 'PH00', risk: 'does not sit to the bottom of the recess: it strips the screw' }],
  },
  {
    of: /^PH00$/,
    substitutes: [{ tool: 'PH000', risk: 'is thin for this recess: it turns in it and strips the screw' }],
  },
  {
    of: /^five-lobe/,
    substitutes: [{ tool: 'slot 1.2', risk: 'touches two lobes only: it strips the screw at the first stiff one' }],
  },
  { of: /^tri-point/, substitutes: [{ tool: 'slot 1.0', risk: 'touches one arm only: it strips the screw' }] },
  {
    of: /^plastic spudger/,
    substitutes: [{ tool: 'pick', risk: 'bends: it lifts a connector askew and can tear its socket' }],
  },
  {
    of: /^plastic tweezers/,
    substitutes: [{ tool: 'fine tweezers', risk: 'metal near the board, only once it is dead' }],
  },
  { of: /^pick$/, substitutes: [{ tool: 'thin film', risk: 'cuts slowly and frays: a longer cut, more heat' }] },
  { of: /^tray pin/, substitutes: [{ tool: 'bent paper clip', risk: 'is thicker and softer: it jams in the lock' }] },
  { of: /^warming plate/, substitutes: [{ tool: 'hot air', risk: 'quick and uneven: can overheat the cell' }] },
  { of: /^scraper/, substitutes: [{ tool: 'plastic spudger', risk: 'slower, leaves more behind: more alcohol' }] },
];

/** The map's own substitutes for a drive come first, then what is common practice. */
export function substitutesFor(tool: string, alsoDrives: readonly string[]): Substitute[] {
  const usual = SUBSTITUTES.find((each) => each.of.test(tool))?.substitutes ?? [];
  const mapped = alsoDrives.map(
    (drive): Substitute =>
      usual.find((each) => each.tool === drive) ?? {
        tool: drive,
        risk: 'fits loosely: it can slip and strip the screw',
      },
  );
  return [...mapped, ...usual.filter((each) => !alsoDrives.includes(each.tool))];
}
