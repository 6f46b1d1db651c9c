import wasm from '@jitl/quickjs-wasmfile-release-sync/wasm?url';
import { expose } from 'comlink';
import { startInterpreter } from '../sandbox/sandbox';
import { scriptServiceWith } from './script';

expose(scriptServiceWith(() => startInterpreter(wasm)));
