// Styles are for the bundler: nothing in them has a type.
declare module "*.css";
