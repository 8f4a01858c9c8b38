/** The version of this command line; a test holds it to what package.json says. */
export const VERSION = '0.1.0';
