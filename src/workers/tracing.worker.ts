import { expose } from 'comlink';
import { tracingService } from './tracing';

expose(tracingService);
