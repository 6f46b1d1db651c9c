import { expose } from 'comlink';
import { copyService } from './copy';

expose(copyService);
