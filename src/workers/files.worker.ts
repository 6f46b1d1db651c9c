import { expose } from 'comlink';
import { filesService } from './files';
import { kerningService } from './kerning';
import { namesService } from './names';
import { tidyService } from './tidy';

expose({ ...filesService, ...namesService, ...tidyService, ...kerningService });
