/** Stands in for a package of polyfills: every browser that runs the app has this, and its error texts weigh 11 kB. */
module.exports = Object.defineProperty;
