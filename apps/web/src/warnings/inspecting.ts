/** What finds warnings: fetched apart from the first view, which shows them a while after everything else. */
export { inspect, sortedOut } from '@insidia/core';
