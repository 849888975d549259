/** Before all unit tests of a run: the name of the demo database that its test files copy (`npm test` has made one), and no lines of the journal. */
module.exports = () => {
  process.env.UNIT_TEMPLATE ??= `unit_template_${process.pid}_${Date.now()}`;
  process.env.EVERY_TRACE_LOG ??= 'error';
};
