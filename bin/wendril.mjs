#!/usr/bin/env node
import '../build/wendril.mjs';
