export { standBuilt as default } from './world.mjs';
