import '../core/allEdits';
import { expose } from 'comlink';
import { preflightService } from './preflight';

expose(preflightService);
