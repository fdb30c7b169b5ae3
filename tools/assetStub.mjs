/** Stands for a font or a style sheet where unit tests import one. */
export default '';
