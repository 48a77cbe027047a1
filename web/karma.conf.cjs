process.env.CHROME_BIN ??= '/usr/bin/chromium';

module.exports = (config) => {
  config.set({
    frameworks: ['jasmine'],
    plugins: [require('karma-jasmine'), require('karma-chrome-launcher')],
    reporters: ['dots'],
    browsers: ['HeadlessChromium'],
    customLaunchers: {
      HeadlessChromium: {
        base: 'ChromeHeadless',
        flags: [
          '--no-sandbox',
          '--disable-gpu',
          '--disable-background-networking',
          '--disable-component-update',
          '--disable-sync',
          '--no-first-run',
        ],
      },
    },
    browserNoActivityTimeout: 180000,
    // A spec that computes for long does not answer meanwhile.
    pingTimeout: 120000,
    browserDisconnectTimeout: 20000,
    restartOnFileChange: false,
  });
};
