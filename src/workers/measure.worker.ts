import { expose } from 'comlink';
import { measureService } from './measure';

expose(measureService);
