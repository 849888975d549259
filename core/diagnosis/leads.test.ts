import { demoCircuit } from '../../testing/circuits';
import type { ReadingValue, TestRef } from '../format';
import type { Assessment } from './assessment';
import { DiagnosisSession } from './session';

const circuit = demoCircuit('van-proving-cabinet');
const complaint = { function: 'cabinet-fan', condition: 'fan-on' };
const session = new DiagnosisSession(circuit, complaint);

function assessed(...taken: readonly (readonly [TestRef, ReadingValue])[]): Assessment {
  const readings = [
    { id: 'c', test: { kind: 'function' as const, ...complaint }, value: { state: 'dead' as const } },
    ...taken.map(([test, value], index) => ({ id: `r${index}`, test, value })),
  ];
  return session.assess({ readings, refused: [], opened: [] });
}

const at = (node: string): TestRef => ({
  kind: 'volts',
  node,
  against: circuit.reference,
  condition: complaint.condition,
});
const over = (node: string, against: string): TestRef => ({
  kind: 'volts',
  node,
  against,
  condition: complaint.condition,
});
const chances = ({ suspects }: Assessment) => suspects.map(({ id, chance }) => [id, chance.toFixed(6)]);
const said = ({ effects }: Assessment, id: string) => effects.find((one) => one.id === id)!.sentence;

describe('a minus sign on the meter', () => {
  test('is the leads the wrong way round: the size counts as if they had been right', () => {
    const turned = assessed([at('f31-out'), { volts: -12.4 }]);
    const right = assessed([at('f31-out'), { volts: 12.4 }]);
    expect(chances(turned)).toEqual(chances(right));
    expect(said(turned, 'r0')).toContain('12.4');
    expect(said(turned, 'r0')).toContain('leads were the wrong way round');
    expect(said(right, 'r0')).not.toContain('wrong way round');
    expect(said(turned, 'r0')).toContain(said(right, 'r0'));
  });

  test('asks once whether red was on the point', () => {
    const both = assessed([at('f31-out'), { volts: -12.4 }], [at('r4-87'), { volts: -12.2 }]);
    expect(said(both, 'r0')).toContain('If red was on the point');
    expect(said(both, 'r1')).toContain('wrong way round');
    expect(said(both, 'r1')).not.toContain('If red was on the point');
  });

  test('over a part is a drop read from the wrong end', () => {
    const turned = assessed([over('c12-box', 'c12-cab'), { volts: -11.8 }]);
    const right = assessed([over('c12-box', 'c12-cab'), { volts: 11.8 }]);
    expect(chances(turned)).toEqual(chances(right));
    expect(turned.suspects[0]!.parts).toContain('C12');
    expect(said(turned, 'r0')).toContain('wrong way round');
  });

  test('of a few hundredths says nothing of the leads', () => {
    const slight = assessed(
      [at('m1-minus'), { volts: -0.04 }],
      [over('c12-box', 'c12-cab'), { volts: -0.03 }],
    );
    for (const id of ['r0', 'r1']) expect(said(slight, id)).not.toContain('wrong way round:');
  });

  test('with a size that the system does not have stays what was read', () => {
    const odd = assessed([at('f31-out'), { volts: -48 }]);
    expect(said(odd, 'r0')).not.toContain('counts.');
    expect(said(odd, 'r0')).toContain('minus sign');
  });
});
