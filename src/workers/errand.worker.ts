import { expose } from 'comlink';
import { errandService } from './errand';

expose(errandService);
