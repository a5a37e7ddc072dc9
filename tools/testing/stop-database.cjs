module.exports = async () => {
  await globalThis.__CRAVIX_DATABASE__?.stop();
};
