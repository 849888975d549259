/**
 * The zone in which a test file runs: the one that its project names, or one of three by the file's name, so that the
 * whole stands in all of them. Days that begin elsewhere than those of the machine have been a fault more than once.
 */
const path = require('node:path');
const { TestEnvironment } = require('jest-environment-node');

const ZONES = ['UTC', 'Europe/Berlin', 'Pacific/Auckland'];

function zoneOf(file) {
  const sum = [...path.relative(process.cwd(), file)].reduce((all, letter) => all + letter.charCodeAt(0), 0);
  return ZONES[sum % ZONES.length];
}

module.exports = class extends TestEnvironment {
  constructor(config, context) {
    process.env.TZ = config.projectConfig.testEnvironmentOptions.zone ?? zoneOf(context.testPath);
    super(config, context);
  }
};
