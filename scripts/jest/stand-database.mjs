export { standDatabase as default } from './world.mjs';
