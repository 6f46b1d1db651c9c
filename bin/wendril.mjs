#!/usr/bin/env -S node --max-semi-space-size=128 --min-semi-space-size=128
import '../build/wendril.mjs';
