#!/usr/bin/env node
require('../dist/main.js').main(process.argv);
