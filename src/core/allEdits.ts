/** Brings every edit there is, so that each can be found by its name. */
import './composing/edits';
import './coverage/edits';
import './drawing/arrange';
import './drawing/backdrops';
import './drawing/components';
import './drawing/edits';
import './drawing/ends';
import './drawing/fullness';
import './drawing/glide';
import './drawing/guides';
import './drawing/lettering';
import './drawing/shapeEdits';
import './drawing/strokes';
import './drawing/strokesOfMany';
import './drawing/takes';
import './drawing/transform';
import './fitting/figures';
import './fitting/follows';
import './fitting/proposal';
import './fitting/sides';
import './kerning/edits';
import './kerning/groups';
import './project/edits';
import './project/glyphEdits';
import './project/zoneEdits';
import './tidying/operations';

export { registeredEdits, runEdit } from './project/edit';
