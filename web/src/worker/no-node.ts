/**
 * Stands in for Node's own modules in the page: decoders that run in both name them, and use them only in Node.
 */
export default {};
