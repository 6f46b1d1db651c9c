import { expose } from 'comlink';
import { filesService } from './files';

expose(filesService);
