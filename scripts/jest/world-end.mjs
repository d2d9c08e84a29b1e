export { takeDown as default } from './world.mjs';
