#!/usr/bin/env node
// Node that can keep what it has compiled need not compile it at the next call.
require('node:module').enableCompileCache?.();
require('../dist/main.js').main(process.argv);
