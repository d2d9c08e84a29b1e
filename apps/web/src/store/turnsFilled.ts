export { withTurnsFilled } from '@insidia/core';
