import { expose } from 'comlink';
import { filesService } from './files';
import { namesService } from './names';

expose({ ...filesService, ...namesService });
