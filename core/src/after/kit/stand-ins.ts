/** What can stand in for a tool that is missing, and what that risks. */
export interface StandIn {
  readonly tool: string;
  readonly risk: string;
}

/** By the beginning of the tool's name. Origin: common practice. */
const STAND_INS: readonly { readonly of: RegExp; readonly standIns: readonly StandIn[] }[] = [
  {
    of: /^stand-off/,
    standIns: [
      {
        tool: 'slot 1.5',
        risk: 'turns on one side of the stand-off only: it slips, scars the rim, and can reach the board',
      },
      { tool: 'fine tweezers', risk: 'slip easily: metal beside the board' },
    ],
  },
  { of: /^IP\d/, standIns: [{ tool: 'T', risk: 'has no hole for the pin: it does not enter without harm' }] },
  { of: /^PH000/, standIns: [{ tool: 'PH00', risk: 'does not sit to the bottom of the recess: it strips the screw' }] },
  { of: /^PH00$/, standIns: [{ tool: 'PH000', risk: 'is thin for this recess: it turns in it and strips the screw' }] },
  {
    of: /^five-lobe/,
    standIns: [{ tool: 'slot 1.2', risk: 'touches two lobes only: it strips the screw at the first stiff one' }],
  },
  { of: /^tri-point/, standIns: [{ tool: 'slot 1.0', risk: 'touches one arm only: it strips the screw' }] },
  {
    of: /^plastic spudger/,
    standIns: [{ tool: 'pick', risk: 'bends: it lifts a connector askew and can tear its socket' }],
  },
  {
    of: /^plastic tweezers/,
    standIns: [{ tool: 'fine tweezers', risk: 'metal near the board, only once it is dead' }],
  },
  { of: /^pick$/, standIns: [{ tool: 'thin film', risk: 'cuts slowly and frays: a longer cut, more heat' }] },
  { of: /^tray pin/, standIns: [{ tool: 'bent paper clip', risk: 'is thicker and softer: it jams in the lock' }] },
  { of: /^warming plate/, standIns: [{ tool: 'hot air', risk: 'quick and uneven: can overheat the cell' }] },
  { of: /^scraper/, standIns: [{ tool: 'plastic spudger', risk: 'slower, leaves more behind: more alcohol' }] },
];

/** The map's own stand-ins for a drive come first, then what is common practice. */
export function standInsFor(tool: string, alsoDrives: readonly string[]): StandIn[] {
  const usual = STAND_INS.find((each) => each.of.test(tool))?.standIns ?? [];
  const mapped = alsoDrives.map(
    (drive): StandIn =>
      usual.find((each) => each.tool === drive) ?? {
        tool: drive,
        risk: 'fits loosely: it can slip and strip the screw',
      },
  );
  return [...mapped, ...usual.filter((each) => !alsoDrives.includes(each.tool))];
}
