/** @type {import('tailwindcss').Config} */
module.exports = { content: ["./app/**/*.js"], presets: [require("nativewind/preset")] };
