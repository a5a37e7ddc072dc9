// Styles are handled by the bundler and have no types.
declare module "*.css";
