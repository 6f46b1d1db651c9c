import { expose } from 'comlink';
import { compileService } from './compile';

expose(compileService);
