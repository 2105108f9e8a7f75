/** Stands in for Node built-ins in the browser bundle (see next.config.ts). */
const nothing = {};
export default nothing;
export const createRequire = undefined;
