import { dirname, relative, resolve } from 'node:path';

/**
 * The rooms of a folder in their order: each may know those of earlier lines, and in a line nobody knows anybody. A name
 * with a slash is a room of a wing; a wing without rooms stands for itself.
 */
const HOUSES = {
  'core/src': [
    'model/device-map model/sources model/refusal model/battery model/identity model/names model/limits model/units',
    'model/policy model/calendar model/photos',
    'physics/heat physics/solvent physics/torque physics/bonding physics/isolate',
    'fitting/tape fitting/load fitting/rim',
    'planner/holds planner/order',
    'planner/search planner/map-check',
    'planner/sequence',
    'planner/drafts',
    'planner/words',
    'planner/plan planner/cut',
    'teardown/record',
    'teardown/infer',
    'screws/screws screws/tightening',
    'screws/mix-ups',
    'screws/screw-mat',
    'workshop/shop workshop/parts',
    'workshop/prepare',
    'workshop/schools',
    'job/events',
    'job/state',
    'job/rules',
    'job/fold',
    'bench/explain',
    'bench/in-hand bench/trying',
    'after/report after/kit after/own-times',
    'drawn/places',
    'drawn/shown',
    'drawn/picture',
    'asking/question',
    'asking/at-bench asking/handing-over asking/preparing asking/taking-in asking/taking-apart',
    'api',
  ],
  'server/src': ['disk sizes print stand-ins', 'people store', 'http export', 'network compute backup', 'routes'],
};

/** Where a file stands: its folder's order, its line in it, and its room; null where no order is kept. */
function placeOf(file) {
  for (const [house, lines] of Object.entries(HOUSES)) {
    const path = relative(resolve(house), file);
    if (path.startsWith('..')) continue;
    const rooms = lines.map((line) => line.split(' '));
    const line = rooms.findIndex((each) => each.some((room) => path.startsWith(`${room}/`)));
    if (line < 0) return null;
    const room = rooms[line].find((each) => path.startsWith(`${each}/`));
    return { house, line, room, within: path.slice(room.length + 1) };
  }
  return null;
}

const inOrder = {
  create(context) {
    const file = context.physicalFilename ?? context.filename;
    const here = file.includes('.test.') ? null : placeOf(file);
    const look = ({ source }) => {
      if (!here || !source?.value.startsWith('.')) return;
      const there = placeOf(resolve(dirname(file), source.value));
      if (!there || there.house !== here.house || there.room === here.room) return;
      const report = (message) => context.report({ node: source, message });
      if (there.line >= here.line) report(`${here.room} stands before ${there.room} and does not know it.`);
      else if (there.house === 'core/src' && there.within !== 'index.ts')
        report(`The door of ${there.room} is its index.ts.`);
    };
    return { ImportDeclaration: look, ExportNamedDeclaration: look, ExportAllDeclaration: look };
  },
};

export default { meta: { name: 'wings' }, rules: { 'in-order': inOrder } };
