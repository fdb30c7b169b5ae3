/** The package has no types; it is loaded for the processor that it registers. */
declare module 'signalsmith-stretch';
