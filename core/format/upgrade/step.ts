/** From one version to the next. It must leave alone what is not formed as it should be: that is reported afterwards. */
export type Step = (file: Readonly<Record<string, unknown>>) => Record<string, unknown>;
