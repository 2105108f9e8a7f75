// Jest runs CommonJS packages before the modules beside them: what core/geometry/workerScope.ts lends comes too late
// here.
module.exports = { navigator: { userAgent: 'worker' } };
