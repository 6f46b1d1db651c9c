import '../core/allEdits';

/** What the documentation of scripts is written from, with every edit there is. */
export { referenceText } from '../core/scripting/declarations';
