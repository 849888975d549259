/** What a person would see differ: functions that work, are weak, dead or on where they were not. */
import { settingWords } from '../settings';
import type { Finding, FindingKind } from './finding';

export const functions: FindingKind = {
  name: 'functions',
  find: ({ before, after, beforeModel, afterModel, settings }) =>
    before.functions.flatMap((one): Finding[] => {
      const still = after.functions.find(({ id }) => id === one.id);
      if (!still) {
        return [
          {
            kind: 'functions',
            danger: false,
            words: `${one.name} is no more: what it is seen by was taken out.`,
            at: null,
            path: [one.load],
            amount: null,
            remedy: 'Where that was not meant, leave it in.',
          },
        ];
      }
      const differs = settings.filter(
        ({ before: was, after: is }) => beforeModel.outcome(one, was) !== afterModel.outcome(still, is),
      );
      const [first] = differs;
      if (!first) return [];
      const [was, is] = [beforeModel.outcome(one, first.before), afterModel.outcome(still, first.after)];
      const others = differs.length === 1 ? '' : ` and in ${differs.length - 1} other settings`;
      return [
        {
          kind: 'functions',
          danger: one.safetyCritical === true,
          words: `${one.name}: ${OUTCOME[was]} before, ${OUTCOME[is]} after, ${settingWords(after, first.at)}${others}.`,
          at: first.at,
          path: [one.load],
          amount: null,
          remedy: 'Say that it was asked for, or change the plan.',
        },
      ];
    }),
};

const OUTCOME = { works: 'on', weak: 'weak', dead: 'off' } as const;
