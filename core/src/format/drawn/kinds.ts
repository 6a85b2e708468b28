/** Files of lines that can be read, as a picker wants them. */
export const DRAWN_FILES = '.dxf,.svg,.csv,.txt';
