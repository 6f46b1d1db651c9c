#!/usr/bin/env -S node --max-semi-space-size=64
import '../build/wendril.mjs';
