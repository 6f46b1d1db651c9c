import libraries from 'virtual:language-declarations';
import { expose } from 'comlink';
import { typingServiceWith } from './typing';

expose(typingServiceWith(libraries));
