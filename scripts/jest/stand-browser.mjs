export { standBrowser as default } from './world.mjs';
